-- Moves the demo's clock. Sessions and tries to sign in move with it, or everybody would be signed out by a jump ahead.
-- Moved back, it forgets what opened in between. Where no offset is set the school runs on real time, and nothing moves.
CREATE FUNCTION move_demo_clock(seconds bigint) RETURNS boolean LANGUAGE plpgsql SECURITY DEFINER SET search_path = public AS $$
BEGIN
  UPDATE setting SET value = (value::bigint + seconds)::text WHERE key = 'clock-offset-seconds';
  IF NOT FOUND THEN
    RETURN false;
  END IF;
  UPDATE session SET started_at = started_at + make_interval(secs => seconds), expires_at = expires_at + make_interval(secs => seconds);
  UPDATE sign_in_try SET at = at + make_interval(secs => seconds);
  IF seconds < 0 THEN
    WITH gone AS (
      DELETE FROM opened o USING section c, setting s
      WHERE c.id = o.section AND s.key = 'clock-offset-seconds' AND o.at > now() + make_interval(secs => s.value::bigint)
      RETURNING c.edition
    )
    UPDATE edition SET version = version + 1 WHERE id IN (SELECT edition FROM gone);
  END IF;
  RETURN true;
END $$;
REVOKE ALL ON FUNCTION move_demo_clock(bigint) FROM PUBLIC;
GRANT EXECUTE ON FUNCTION move_demo_clock(bigint) TO polycline_app;
