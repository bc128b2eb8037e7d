-- What nobody has said is not known: when a gauge was calibrated, and so whether its calibration held when something was read with it.
alter table gauge alter column calibrated_on drop not null;
alter table reading alter column gauge_overdue drop not null;

-- A shop says its stands and its prices itself. One that is at work keeps the stands it has had, and the demo its prices; an event of Moray's own seals
-- them.
do $$
begin
  if not exists (select 1 from person) then return; end if;
  insert into setting (key, value) values ('stands', '["Stand 1", "Stand 2", "Stand 3"]'::jsonb) on conflict (key) do nothing;
  insert into setting (key, value)
    select 'rules', '{"rate": 950, "consumables": 600, "currency": "kr", "units": "metric"}'::jsonb
    where exists (select 1 from setting where key = 'demo' and value = 'true'::jsonb)
    on conflict (key) do update set value = excluded.value || setting.value;
  insert into event (at, by_person, kind, subject, data)
    values (now(), null, 'shop', 'shop', '{"about": "sealed", "why": "stands and prices as they were"}'::jsonb);
end $$;
