-- What was changed in the draft of a sheet, one row for each change, so that it can be undone. A draft is no evidence: its changes go when it is published or
-- begun anew.
create table sheet_draft_change (
  id bigint generated always as identity primary key,
  drive text not null references drive (id) on delete cascade,
  -- row by row: what stood there, and what stood there then
  changes jsonb not null,
  -- the change that this one undid; each is undone once
  undoes bigint unique references sheet_draft_change (id) on delete cascade,
  by_person text not null references person (id),
  at timestamptz not null
);
create index sheet_draft_change_drive on sheet_draft_change (drive, id);

-- The edition that a version goes on from which was never published: an edition and what was entered at the bench since. Null for an edition, and where
-- nothing was published before.
alter table drive_sheet add column after_edition int;

-- Somebody who was asked at the bench did not know whether a row leads to another: he is not asked again on this job.
alter table told drop constraint told_kind_check;
alter table told add constraint told_kind_check check (kind in ('accepted', 'undone', 'not-known'));
