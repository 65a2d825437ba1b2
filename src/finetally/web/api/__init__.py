"""The API: one router an area, one error map, schemas generated into docs/openapi.json."""
