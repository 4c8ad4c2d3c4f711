-- What viewers hear besides the footage, and with which a video was rendered; null where that was not written down.
alter table workouts add column cues jsonb not null default '{}';
alter table packs add column cues jsonb;
alter table packs add column mix jsonb;
-- Lines that the coach has recorded, by what is said: the same line is used in every workout.
create table recordings (
  line text primary key check (length(line) between 1 and 300),
  hash text not null,
  length_ms double precision not null,
  created_at timestamptz not null default now()
);
-- How loud cues are was a share of what they were made with; it is told against the coach now.
update workouts set mix = (mix - 'cues') || case
  when (mix->>'cues')::numeric <= 0.01 then '{"cuesOn": false}'::jsonb
  else jsonb_build_object('cueLu', greatest(-12, least(9, round(3 + 20 * log((mix->>'cues')::numeric), 1))))
end where mix ? 'cues';
-- Loudness was left as it was filmed.
update workouts set mix = mix || '{"target": "asIs", "duckDb": 0}' where mix <> '{}';
