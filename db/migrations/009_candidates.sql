-- Other places where a change that was heard may be, likeliest first, so that one can be moved to the next.
alter table stitches add column alternatives jsonb not null default '[]';
