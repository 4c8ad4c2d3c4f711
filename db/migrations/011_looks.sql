-- How viewers are shown what they read, and which look a video was rendered with.
alter table workouts add column look jsonb not null default '{}';
alter table packs add column look jsonb not null default '{}';
