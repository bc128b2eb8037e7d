-- Lines of a job but its head are searched apart from the heads, and the newest heads are looked at first: a word that is everywhere is found in them, without
-- going through every job of twenty years (at 10 000 jobs 55 ms, with this 10).
drop index search_line_own;
create index search_line_own on search_line using gin (own) with (gin_pending_list_limit = 256) where kind <> 'job';
create index search_line_newest on search_line (at desc) where kind = 'job';
