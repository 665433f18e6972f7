INSERT INTO batch (scope_kind, scope, version, command, words, author, at, undoes)
VALUES (@ScopeKind, @Scope, @version, @Command, @Words, @Author, @At, @Undoes)
RETURNING id
