-- Sessions run on the floor. The plan as it was run stands with each, so that its record means the same for ever.
create table sessions (
  id uuid primary key default gen_random_uuid(),
  workout_id uuid not null references workouts on delete cascade,
  score jsonb not null,
  score_revision integer not null,
  rehearsal boolean not null,
  -- How many seconds of the session pass in one of the wall's; above 1 in rehearsals.
  speed real not null default 1 check (speed > 0),
  chirps text check (chirps in ('plain', 'faint')),
  opened_at timestamptz not null default now(),
  -- Session time at which a page was last heard from.
  seen_ms integer not null default 0 check (seen_ms >= 0),
  ended_at timestamptz
);
create index sessions_by_workout on sessions (workout_id, opened_at desc);
-- One session at a time stands on a workout's floor.
create unique index sessions_one_open on sessions (workout_id) where ended_at is null;

create table session_events (
  session_id uuid not null references sessions on delete cascade,
  -- In the order in which they arrived; in the order of what happened by their time.
  number bigint generated always as identity,
  key uuid not null,
  at_ms integer not null check (at_ms >= 0),
  event jsonb not null,
  arrived_at timestamptz not null default now(),
  primary key (session_id, key)
);
create index session_events_in_order on session_events (session_id, number);
