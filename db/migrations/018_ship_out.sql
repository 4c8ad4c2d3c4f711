-- What a video is rendered for.
alter table jobs
  add column purpose text not null default 'host',
  -- Of a render: how much of the video has to be made, once that is known.
  add column made_ms double precision;
alter table packs add column purpose text not null default 'host';
-- What was written of a video, before anybody changed its description, and in how many places both were changed when the
-- changes were carried over from the video before it.
alter table packs
  add column written text not null default '',
  add column clashes integer not null default 0;
update packs set written = description;
-- The picture that stands for the video where nobody plays it.
alter table workouts add column thumbnail jsonb not null default '{}';
