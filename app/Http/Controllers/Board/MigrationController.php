<?php

declare(strict_types=1);

namespace App\Http\Controllers\Board;

use App\Actions\Board\AddMigration;
use App\Http\Controllers\Controller;
use App\Http\Requests\Board\AddMigrationRequest;
use App\Http\Resources\MigrationResource;
use App\Models\Membership;
use App\Models\Migration;
use App\Policies\Act;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

final class MigrationController extends Controller
{
    public function index(Request $request): JsonResponse
    {
        $person = $this->person($request);
        $migrations = Migration::query()->whereIn('id', $person->memberships()->pluck('migration_id'))->orderBy('name')->get();

        return response()->json([
            'items' => MigrationResource::collection($migrations)->resolve($request),
            'mayAdd' => $person->is_administrator && $person->reaches(Act::Administer),
        ]);
    }

    public function store(AddMigrationRequest $request, AddMigration $addMigration): MigrationResource
    {
        return MigrationResource::make($addMigration($request->values(), $this->person($request)));
    }

    /** Who works on the migration: people to ask and to mention. */
    public function people(Migration $migration): JsonResponse
    {
        $memberships = $migration
            ->memberships()
            ->with('user')
            ->get()
            ->sortBy(static fn(Membership $membership): string => $membership->user->name);

        return response()->json([
            'items' => array_values(
                $memberships
                    ->map(
                        static fn(Membership $membership): array => [
                            'id' => $membership->user_id,
                            'name' => $membership->user->name,
                            'role' => $membership->role->label(),
                            'mayWork' => Act::Work->isFor($membership->role),
                            'mayRule' => Act::Rule->isFor($membership->role),
                        ],
                    )
                    ->all(),
            ),
        ]);
    }
}
