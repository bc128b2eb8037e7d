-- What a torque wrench is beyond its error: its range, the length that counts, and its adapters.
alter table gauge add column wrench jsonb;
