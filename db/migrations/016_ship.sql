-- Rows of chunks are jobs of a render; whoever has a worker at this database may render them.
alter table jobs drop constraint jobs_kind_check;
alter table jobs add constraint jobs_kind_check check (kind in ('prepare', 'render', 'chunks'));
alter table jobs
  add column parent_id uuid references jobs on delete cascade,
  -- Of a render: what its picture is made of. A worker of another program leaves its chunks alone.
  add column picture jsonb,
  add column program text,
  -- Of chunks: the numbers of the first and of the last.
  add column first_chunk integer,
  add column last_chunk integer,
  add constraint jobs_chunks check (
    (kind = 'chunks') = (parent_id is not null and program is not null and first_chunk is not null and last_chunk is not null));
create index jobs_by_parent on jobs (parent_id) where parent_id is not null;
-- How a video was rendered; null where that was not written down.
alter table packs add column rendered jsonb;
