-- Which version of Moray brought a migration: an older one that is started on newer tables can then say which version they need.
alter table schema_version add column moray text;
