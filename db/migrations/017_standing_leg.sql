-- On which leg a move that is done on one leg stands.
alter table moves add column standing_leg text not null default 'unknown';
alter table moves add constraint moves_standing_leg_check check (standing_leg in ('unknown', 'same', 'other'));
