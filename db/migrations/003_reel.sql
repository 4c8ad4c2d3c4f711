-- Evidence and stitches belong to a footage, a workout has a reel of footages, and what the shelf shows are columns.

-- What the shelf and the move library ask for, kept in step with the score by whoever writes it.
alter table workouts
  add column title text not null default '',
  add column total_ms bigint not null default 0,
  add column work_ms bigint not null default 0,
  -- 'empty': no section yet; 'planned'; 'beyond': more than Jivet unfolds; 'damaged': the score cannot be read.
  add column plan_state text not null default 'empty' check (plan_state in ('empty', 'planned', 'beyond', 'damaged')),
  -- How loud the footage and the cues are.
  add column mix jsonb not null default '{}';
create index workouts_on_shelf on workouts (updated_at desc, id desc) where removed_at is null;

create table workout_moves (
  workout_id uuid not null references workouts on delete cascade,
  -- In small letters and without blanks around it: one name whatever its capitals.
  name text not null,
  primary key (workout_id, name)
);
create index workout_moves_by_name on workout_moves (name);

-- The reel: files in order. Without a place a footage is on its way in, or was put aside with all that belongs to it.
alter table footage
  add column place integer check (place >= 0),
  add column put_aside_at timestamptz,
  add column stitch_revision integer not null default 1;
create unique index footage_places on footage (workout_id, place) where place is not null;
with shown as (
  select distinct on (workout_id) id, workout_id from footage order by workout_id, (state = 'failed'), created_at desc
)
update footage set
  place = case when footage.id = shown.id then 0 end,
  put_aside_at = case when footage.id = shown.id then null else now() end
from shown where shown.workout_id = footage.workout_id and footage.state <> 'failed';
update footage set stitch_revision = workouts.stitch_revision from workouts where workouts.id = footage.workout_id and place = 0;

create table evidence (
  id bigint generated always as identity primary key,
  footage_id uuid not null references footage on delete cascade,
  -- The version of the engine that heard or saw it.
  engine integer not null,
  kind text not null check (kind in ('beep', 'word', 'sample', 'caption', 'chirp', 'motion', 'log', 'hand')),
  at_ms double precision not null check (at_ms >= 0),
  spread_ms real not null check (spread_ms >= 0),
  strength real not null check (strength between 0 and 1),
  payload jsonb not null
);
create index evidence_by_footage on evidence (footage_id, at_ms);
insert into evidence (footage_id, engine, kind, at_ms, spread_ms, strength, payload)
  select footage.id, 1, 'beep', greatest(0, (beep ->> 'atMs')::float8), 3, least(1, greatest(0, (beep ->> 'strength')::real)),
    jsonb_build_object('hz', beep -> 'hz', 'durationMs', beep -> 'durationMs')
  from footage, jsonb_array_elements(coalesce(footage.beeps, '[]')) as beep;
alter table footage drop column beeps;

alter table stitches rename to stitches_before;
create table stitches (
  workout_id uuid not null references workouts on delete cascade,
  footage_id uuid not null references footage on delete cascade,
  segment_id text not null,
  edge text not null check (edge in ('start', 'end')),
  footage_ms integer not null check (footage_ms >= 0),
  origin text not null check (origin in ('hand', 'heard')),
  confidence real not null check (confidence between 0 and 1),
  evidence text[] not null,
  primary key (footage_id, segment_id, edge)
);
insert into stitches
  select old.workout_id, footage.id, old.segment_id, old.edge, old.footage_ms,
    case when 'hand' = any (old.evidence) then 'hand' else 'heard' end, old.confidence, old.evidence
  from stitches_before as old join footage on footage.workout_id = old.workout_id and footage.place = 0;
-- Ties of a workout that has lost its footage hang on nothing that could be shown; they went with it.
drop table stitches_before;
alter table workouts drop column stitch_revision;

-- What a rendered video shows; null where an older Jivet did not write it down.
alter table packs
  add column score_revision integer,
  add column stitch_revision integer,
  add column footage_id uuid references footage on delete set null;
