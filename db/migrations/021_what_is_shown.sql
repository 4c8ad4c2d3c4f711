-- Which content of the score a pack shows: a score saved since that shows the same leaves the video as it is. Null
-- where an older Jivet did not write it down.
alter table packs add column score_shown text;
