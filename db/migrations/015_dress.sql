-- Looks that were given a name, for every workout.
create table looks (
  name text primary key check (length(name) between 1 and 80),
  look jsonb not null,
  changed_at timestamptz not null default now()
);
-- Pieces of music that were brought, by their content; which of them a workout plays stands in its mix.
create table music (
  hash text primary key,
  name text not null,
  length_ms double precision not null,
  created_at timestamptz not null default now()
);
-- What part of the picture is shown, and with which a video was rendered; null where that was not written down.
alter table workouts add column framing jsonb not null default '{}';
alter table packs add column framing jsonb;
-- The description that goes with a video; empty where an older Jivet wrote none.
alter table packs add column description text not null default '';
