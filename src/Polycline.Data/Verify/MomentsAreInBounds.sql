-- Every date and moment of every table lies where dates and moments are taken: from 1900 to 3000, and never infinite.
SELECT format('%s of %s has %s outside the years 1900 to 3000', columns.column_name, columns.table_name, found.count)
FROM information_schema.columns
JOIN information_schema.tables USING (table_schema, table_name)
CROSS JOIN LATERAL (
    SELECT (xpath('/row/count/text()', query_to_xml(
        format('SELECT count(*) FROM %I WHERE %I < ''1900-01-01'' OR %I > ''3000-01-01''', table_name, column_name, column_name), true, true, '')))[1]::text::bigint
) AS found (count)
WHERE table_schema = 'public' AND table_type = 'BASE TABLE' AND data_type IN ('date', 'timestamp with time zone', 'timestamp without time zone') AND found.count > 0
ORDER BY 1;
