#!/usr/bin/env bash
# Makes the OpenAPI document and the front end's types anew, from the application as it was last built (Debug).
set -euo pipefail
cd "$(dirname "$0")/.."
dotnet src/Polycline.Demo/bin/Debug/net10.0/Polycline.Demo.dll openapi 2>/dev/null >web/src/foundation/api/openapi.json
cd web && npx --no-install openapi-typescript src/foundation/api/openapi.json -o src/foundation/api/schema.d.ts
