<?php

declare(strict_types=1);

namespace App\Http\Controllers\Sources;

use App\Actions\Access\Trail;
use App\Actions\Sources\KeepConnection;
use App\Adapters\Sources\SourceKind;
use App\Adapters\Sources\Sources;
use App\Http\Controllers\Controller;
use App\Http\Requests\Sources\ConnectionRequest;
use App\Models\Dataset;
use App\Models\Migration;
use App\Models\SourceConnection;
use App\Models\TrailAct;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;

/** Connections to databases, as an administrator keeps them, and what those who deliver see of them. */
final class ConnectionController extends Controller
{
    public function index(): JsonResponse
    {
        return response()->json([
            'migrations' => Migration::query()->orderBy('name')->get(['id', 'name'])->map->only(['id', 'name'])->all(),
            'kinds' => array_map(
                static fn(SourceKind $kind): array => [
                    'kind' => $kind->value,
                    'label' => $kind->label(),
                    'port' => $kind->port(),
                    'isThere' => $kind->isThere(),
                ],
                SourceKind::cases(),
            ),
            'files' => config()->string('nine-tally.source_files'),
            'items' => SourceConnection::query()->with('user')->orderBy('label')->get()->map($this->told(...))->all(),
        ]);
    }

    /** Tried before it is kept. */
    public function try(ConnectionRequest $request, Migration $migration, KeepConnection $keep): JsonResponse
    {
        return response()->json(['greeting' => $keep->try($request->kind(), $request->settings(), $request->password(), null)]);
    }

    public function store(ConnectionRequest $request, Migration $migration, KeepConnection $keep): JsonResponse
    {
        return response()->json($this->told($this->keep($request, $migration, null, $keep)), Response::HTTP_CREATED);
    }

    public function update(
        ConnectionRequest $request,
        Migration $migration,
        SourceConnection $connection,
        KeepConnection $keep,
    ): JsonResponse {
        return response()->json($this->told($this->keep($request, $migration, $connection, $keep)));
    }

    public function destroy(Request $request, Migration $migration, SourceConnection $connection, Trail $trail): Response
    {
        $connection->getConnection()->transaction(function () use ($request, $migration, $connection, $trail): void {
            $connection->delete();
            $trail->note(TrailAct::RemovedConnection, $this->person($request), $connection->label, $migration);
        });

        return response()->noContent();
    }

    /** Tables of a database that rows can be drawn from. */
    public function tables(Request $request, Dataset $dataset, Sources $sources): JsonResponse
    {
        return response()->json(['items' => $sources->database($dataset->migration, $this->named($request, 'source'))->tables()]);
    }

    public function columns(Request $request, Dataset $dataset, Sources $sources): JsonResponse
    {
        return response()->json([
            'items' => $sources->database($dataset->migration, $this->named($request, 'source'))->columns($this->named($request, 'table')),
        ]);
    }

    private function named(Request $request, string $what): string
    {
        $request->validate([$what => ['required', 'string', 'max:300']]);

        return $request->string($what)->toString();
    }

    private function keep(ConnectionRequest $request, Migration $migration, ?SourceConnection $kept, KeepConnection $keep): SourceConnection
    {
        return $keep(
            $migration,
            $kept,
            $request->label(),
            $request->kind(),
            $request->settings(),
            $request->password(),
            $this->person($request),
        );
    }

    /** @return array<string, mixed> never with the password */
    private function told(SourceConnection $connection): array
    {
        return [
            'id' => $connection->id,
            'migration' => $connection->migration_id,
            'label' => $connection->label,
            'kind' => $connection->kind->value,
            'settings' => (object) $connection->settings,
            'hasPassword' => $connection->secret !== null,
            'by' => $connection->user->name,
            'at' => $connection->updated_at->toIso8601ZuluString(),
        ];
    }
}
