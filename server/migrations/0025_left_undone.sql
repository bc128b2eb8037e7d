-- A step that was gone on from over something that did not hold: whether its work was left undone. Null where it was done, or an older Moray did not ask.
alter table step_done add column undone boolean;

-- The number under which a repair was opened: it alone says what came before it.
alter table repair_loop add column entered integer;
