-- How the footage of a workout is cut: as filmed, to the score, or filled; and what of it was taken back.
alter table workouts add column cut jsonb not null default '{}';
-- How the footage of a video was cut; null where it was followed as filmed, before there was anything else.
alter table packs add column cut jsonb;
