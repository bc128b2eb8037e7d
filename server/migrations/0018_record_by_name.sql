-- Functions of the database stand in server/src/db/functions from here on, one in a file, and are made again whenever a file has changed; what the
-- migrations before this one say of them is history. The record of a job is read by name, and no longer counted off by its place in a list.
drop function job_record(text);
drop function ms(timestamptz);
