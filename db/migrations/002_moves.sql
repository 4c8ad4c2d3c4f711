-- The creator's own moves, and own versions of those that ship with Jivet.
create table moves (
  name text not null,
  short text not null,
  cue text not null,
  posture text not null,
  muscles text[] not null,
  impact text not null,
  effort smallint not null check (effort between 1 and 5),
  side_rule text not null,
  gear text[] not null,
  easier text not null,
  harder text not null,
  caution text not null,
  seconds_per_rep real not null check (seconds_per_rep > 0),
  tags text[] not null,
  updated_at timestamptz not null default now()
);
create unique index moves_by_name on moves (lower(name));
