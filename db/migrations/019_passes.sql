-- Who is in: a row for each browser that gave the passphrase and each device that was paired. A cookie names its row.
create table passes (
  id uuid primary key default gen_random_uuid(),
  kind text not null check (kind in ('owner', 'device')),
  workout_id uuid references workouts (id) on delete cascade,
  name text not null,
  began_at timestamptz not null default now(),
  seen_at timestamptz not null default now(),
  -- Since when it opens nothing any more.
  ended_at timestamptz,
  check ((kind = 'device') = (workout_id is not null))
);
create index passes_workout on passes (workout_id);
