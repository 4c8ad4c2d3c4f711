-- What was checked of a workout, by what it showed then, and notes at instants of it.
alter table workouts add column proof jsonb not null default '{}';
