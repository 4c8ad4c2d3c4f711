-- Rows of chunks are jobs of a render; whoever has a worker at this database may render them.
alter table jobs drop constraint jobs_kind_check;
alter table jobs add constraint jobs_kind_check check (kind in ('prepare', 'render', 'chunks', 'publish'));
alter table jobs
  add column parent_id uuid references jobs on delete cascade,
  -- Of a render: what its picture is made of, in the order in which it was told.
  -- A worker of another program leaves its chunks alone.
  add column picture json,
  add column program text,
  -- Of chunks: the numbers of the first and of the last.
  add column first_chunk integer,
  add column last_chunk integer,
  add constraint jobs_chunks check (
    (kind = 'chunks') = (parent_id is not null and program is not null and first_chunk is not null and last_chunk is not null));
create index jobs_by_parent on jobs (parent_id) where parent_id is not null;
-- How a video was rendered; null where that was not written down.
alter table packs add column rendered jsonb;
-- What was handed to a host. Its key is told to the host with every try, so that none is ever there twice.
create unique index jobs_one_publish on jobs (workout_id) where kind = 'publish' and state in ('queued', 'active');
create table publications (
  id uuid primary key default gen_random_uuid(),
  workout_id uuid not null references workouts on delete cascade,
  pack_id uuid not null references packs on delete cascade,
  host text not null,
  key uuid not null default gen_random_uuid(),
  job_id uuid references jobs on delete set null,
  -- The host's name for it, and its page, once the host has told.
  video_id text,
  page text,
  state text not null default 'begun' check (state in ('begun', 'published', 'rejected')),
  reason text not null default '',
  ended_at timestamptz,
  created_at timestamptz not null default now(),
  unique (pack_id, host)
);
create index publications_by_workout on publications (workout_id, created_at desc);
