-- The jobs table is the queue itself, and every save carries a key by which it is known again.
drop schema if exists pgboss cascade;

alter table jobs
  -- Token of the attempt under way: whoever does not hold it changes nothing.
  add column claim uuid,
  -- Counts up while the attempt's worker lives. No wall clock is asked: whoever watches measures the standstill.
  add column beats bigint not null default 0;
alter table jobs drop column heartbeat_at;
update jobs set state = 'queued', share = 0 where state = 'active';

-- One live job of a kind for each footage to prepare and each workout to render; the newest of several stays.
update jobs set state = 'cancelled', ended_at = now() where state = 'queued' and exists (
  select 1 from jobs as newer where newer.state = 'queued' and newer.kind = jobs.kind and newer.id <> jobs.id
    and (newer.created_at, newer.id) > (jobs.created_at, jobs.id)
    and case jobs.kind when 'prepare' then newer.footage_id = jobs.footage_id else newer.workout_id = jobs.workout_id end);
create unique index jobs_one_prepare on jobs (footage_id) where kind = 'prepare' and state in ('queued', 'active');
create unique index jobs_one_render on jobs (workout_id) where kind = 'render' and state in ('queued', 'active');
create index jobs_waiting on jobs (kind, created_at, id) where state = 'queued';

-- The key of the save that made the present revision: a page whose answer was lost knows its own save by it.
alter table workouts add column score_key uuid;
alter table footage add column stitch_key uuid;
