import type { Database } from '../src/db/database.ts'

/** Keeps a copy of every table in the schema `demo`, to go back to. */
export const KEEP_COPY = `
  create schema demo;
  do $$ declare t text; begin
    for t in select tablename from pg_tables where schemaname = 'public' loop
      execute format('create table demo.%I as table public.%I', t, t);
    end loop;
  end $$`

/** Empties every table and fills it from the copy; identity columns go on where the demo left them. */
export async function goBack(db: Database): Promise<void> {
  await db.script(`
    set session_replication_role = replica;
    do $$ declare t text; columns text; begin
      execute (select 'truncate ' || string_agg(format('public.%I', tablename), ', ') from pg_tables where schemaname = 'public');
      for t in select tablename from pg_tables where schemaname = 'public' loop
        select string_agg(format('%I', column_name), ', ') into columns from information_schema.columns
          where table_schema = 'public' and table_name = t and is_generated = 'NEVER';
        execute format('insert into public.%I (%s) overriding system value select %s from demo.%I', t, columns, columns, t);
        if exists (select 1 from information_schema.columns where table_schema = 'public' and table_name = t and is_identity = 'YES') then
          execute format('select setval(%L, (select coalesce(max(id), 0) + 1 from public.%I), false)', pg_get_serial_sequence('public.' || t, 'id'), t);
        end if;
      end loop;
    end $$;
    set session_replication_role = origin`)
}
