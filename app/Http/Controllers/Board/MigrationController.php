<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Actions\Board\AddMigration;
use App\Http\Controllers\Controller;
use App\Http\Requests\Board\AddMigrationRequest;
use App\Http\Resources\MigrationResource;
use App\Models\Migration;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class MigrationController extends Controller
{
    public function index(Request $request): JsonResponse
    {
        $person = $this->person($request);
        $migrations = Migration::query()->whereIn('id', $person->memberships()->pluck('migration_id'))->orderBy('name')->get();

        return response()->json(['items' => MigrationResource::collection($migrations)->resolve($request), 'mayAdd' => $person->is_administrator]);
    }

    public function store(AddMigrationRequest $request, AddMigration $addMigration): MigrationResource
    {
        return MigrationResource::make($addMigration($request->values(), $this->person($request)));
    }
}
