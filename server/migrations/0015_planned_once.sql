-- The record of a job is always read by its id: one plan fits all jobs. Without this the first five readings of every connection plan it anew,
-- each of which takes several times as long as the reading. A later "create or replace" of the function has to say it again.
alter function job_record(text) set plan_cache_mode = force_generic_plan;
