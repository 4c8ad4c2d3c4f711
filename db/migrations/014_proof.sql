-- What was checked of a workout, by what it showed then, and notes at instants of it.
alter table workouts add column proof jsonb not null default '{}';
-- What a video was found to be when it was decoded; null where an older Jivet did not look.
alter table packs add column verified jsonb;
