-- Numbers that captions say are evidence of a kind of their own.
alter table evidence drop constraint evidence_kind_check;
alter table evidence add constraint evidence_kind_check
  check (kind in ('beep', 'word', 'sample', 'caption', 'said', 'chirp', 'motion', 'speech', 'music', 'log', 'hand'));
