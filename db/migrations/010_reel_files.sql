-- A reel of several files: ties are saved for the reel as a whole, files have an order of their own or one by hand, and a
-- second camera stands beside a file whose sound it shares.
alter table workouts
  add column stitch_revision integer not null default 1,
  add column stitch_key uuid,
  -- The order of the files was made by hand, and is not made anew.
  add column ordered_by_hand boolean not null default false;
update workouts set stitch_revision = footage.stitch_revision, stitch_key = footage.stitch_key
  from footage where footage.workout_id = workouts.id and footage.place = 0;
alter table footage drop column stitch_revision, drop column stitch_key;

alter table footage
  -- What of the plan it shows: the planned time in the middle of its sure ties; null where nothing in it is sure.
  add column plan_ms double precision,
  -- Whose place it takes when it is ready; and what took its own place, where it was put aside for another.
  add column replaces uuid references footage on delete set null,
  add column replaced_by uuid references footage on delete set null,
  -- The footage whose sound it shares: where its instant 0 lies in that one's time, and how fast its clock runs.
  add column beside uuid references footage on delete set null,
  add column beside_ms double precision,
  add column beside_ppm double precision not null default 0;
update footage set replaced_by = shown.id from footage as shown
  where shown.workout_id = footage.workout_id and shown.place = 0 and footage.place is null
    and footage.state = 'ready' and footage.put_aside_at is not null;

-- What was not done at all: the tie lies where the next begins that was.
alter table stitches add column done boolean not null default true;

-- Every file that a video shows, in order.
alter table packs add column reel uuid[];
update packs set reel = array[footage_id] where footage_id is not null;
alter table packs drop column footage_id;
