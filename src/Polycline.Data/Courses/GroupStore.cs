using Dapper;
using Npgsql;
using Polycline.Core;

namespace Polycline.Data.Courses;

/// <summary>Groups that are about to be made.</summary>
public static class GroupStore
{
    /// <summary>Numbers that no group has, nor will have.</summary>
    public static async Task<IReadOnlyList<Id<GroupRow>>> Numbers(NpgsqlConnection connection, int many) =>
        [
            .. await connection.QueryAsync<Id<GroupRow>>(
                "SELECT nextval('student_group_id_seq') FROM generate_series(1, @many)",
                new { many }
            ),
        ];
}
