-- Workouts as versioned documents, footage and stitches as facts, jobs and packs as records of long work.
create table workouts (
  id uuid primary key default gen_random_uuid(),
  score jsonb not null,
  score_revision integer not null default 1,
  stitch_revision integer not null default 1,
  is_demo boolean not null default false,
  created_at timestamptz not null default now(),
  updated_at timestamptz not null default now(),
  removed_at timestamptz
);

create table footage (
  id uuid primary key default gen_random_uuid(),
  workout_id uuid not null references workouts on delete cascade,
  name text not null,
  bytes bigint not null,
  -- Name of the finished upload until the file has moved into the store.
  upload text unique,
  hash text,
  state text not null default 'preparing' check (state in ('preparing', 'ready', 'failed')),
  problem text,
  warning text,
  facts jsonb,
  proxy_hash text,
  peaks_hash text,
  beeps jsonb,
  created_at timestamptz not null default now()
);
create index footage_by_workout on footage (workout_id, created_at desc);

create table stitches (
  workout_id uuid not null references workouts on delete cascade,
  segment_id text not null,
  edge text not null check (edge in ('start', 'end')),
  footage_ms integer not null check (footage_ms >= 0),
  confidence real not null check (confidence between 0 and 1),
  evidence text[] not null,
  primary key (workout_id, segment_id, edge)
);

create table jobs (
  id uuid primary key default gen_random_uuid(),
  kind text not null check (kind in ('prepare', 'render')),
  workout_id uuid not null references workouts on delete cascade,
  footage_id uuid references footage on delete cascade,
  state text not null default 'queued' check (state in ('queued', 'active', 'done', 'failed', 'cancelled')),
  share real not null default 0,
  attempts integer not null default 0,
  cancel_asked boolean not null default false,
  problem text,
  created_at timestamptz not null default now(),
  started_at timestamptz,
  heartbeat_at timestamptz,
  ended_at timestamptz
);
create index jobs_by_workout on jobs (workout_id, created_at desc);

create table packs (
  id uuid primary key default gen_random_uuid(),
  workout_id uuid not null references workouts on delete cascade,
  job_id uuid not null references jobs on delete cascade,
  title text not null,
  video_hash text not null,
  video_bytes bigint not null,
  captions text not null,
  chapters text not null,
  created_at timestamptz not null default now()
);
create index packs_by_workout on packs (workout_id, created_at desc);
