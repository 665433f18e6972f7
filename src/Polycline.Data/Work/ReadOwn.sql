SELECT v.n, v.text, v.handed_in_at, v.claimed_at, CASE WHEN v.taken_back_at <= @at THEN v.taken_back_at END AS taken_back_at
FROM work w
JOIN work_version v ON v.work = w.id
WHERE w.person = @person AND w.item = @item AND v.handed_in_at <= @at
ORDER BY v.n DESC;

SELECT text, saved_at, missed_at, claimed_at, version
FROM draft
WHERE person = @person AND item = @item AND saved_at <= @at;
