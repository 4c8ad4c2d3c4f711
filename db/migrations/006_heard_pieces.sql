-- What was heard of a footage so far, piece by piece, while it is being listened to: a hearing that was ended in the
-- middle goes on from there. Gone when the whole has been heard.
create table heard_pieces (
  footage_id uuid not null references footage on delete cascade,
  engine integer not null,
  piece integer not null check (piece >= 0),
  evidence jsonb not null,
  primary key (footage_id, engine, piece)
);

-- Speech and music last: their length is in the payload.
alter table evidence drop constraint evidence_kind_check;
alter table evidence add constraint evidence_kind_check
  check (kind in ('beep', 'word', 'sample', 'caption', 'chirp', 'motion', 'speech', 'music', 'log', 'hand'));
