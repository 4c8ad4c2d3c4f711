-- A file that is not where it should be is missing, until it is back: state, ties and place in the reel stay.
alter table footage add column missing_at timestamptz;
-- Which store this database belongs to. The folder, and the bucket, carry the same id; where they differ nothing of a
-- store is swept or matched.
create table store_identity (
  only_one boolean primary key default true check (only_one),
  id uuid not null default gen_random_uuid(),
  -- When files were last looked through, by the wall clock, and how many more times they are only looked at after that
  -- clock leapt.
  looked_at timestamptz,
  holds integer not null default 0
);
insert into store_identity default values;
-- What no row names in the bucket, and since when; it goes after its time in the trash.
create table bucket_trash (name text primary key, since timestamptz not null default now());

create index stitches_workout on stitches (workout_id);
create index packs_job on packs (job_id);
create index publications_job on publications (job_id);
create index jobs_footage on jobs (footage_id);
create index footage_beside on footage (beside);
create index footage_replaces on footage (replaces);
create index footage_replaced_by on footage (replaced_by);
