<?php

declare(strict_types=1);

namespace App\Http\Controllers\Retention;

use App\Actions\Retention\PurgeContent;
use App\Http\Controllers\Controller;
use App\Http\Requests\Retention\PurgeRequest;
use App\Models\Migration;
use App\Models\SecondFactor;
use App\Models\SigningTerms;
use App\Policies\Act;
use App\Queries\Retention\DueContent;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;

/** What a migration keeps, and what of it is purged. */
final class RetentionController extends Controller
{
    public function __construct(private readonly DueContent $content) {}

    public function index(Request $request, Migration $migration): JsonResponse
    {
        return response()->json($this->shown($request, $migration));
    }

    /** What would go, and what would stay: looked at before anything is done. */
    public function preview(PurgeRequest $request, Migration $migration): JsonResponse
    {
        return response()->json($this->content->before($request->deliveries()));
    }

    public function purge(PurgeRequest $request, Migration $migration, PurgeContent $purge): JsonResponse
    {
        $purge(
            $migration,
            $request->deliveries(),
            $request->reason(),
            $this->person($request),
            $request->string('password')->toString(),
            $request->string('code')->trim()->toString(),
        );

        return response()->json($this->shown($request, $migration), Response::HTTP_CREATED);
    }

    /** @return array<string, mixed> */
    private function shown(Request $request, Migration $migration): array
    {
        return [
            'migration' => ['id' => $migration->id, 'name' => $migration->name],
            'contentMonths' => SigningTerms::of($migration)['contentMonths'],
            'mayPurge' => $this->person($request)->can('act', [$migration, Act::Purge]),
            'needsCode' => SecondFactor::of($this->person($request)) !== null,
            'items' => $this->content->of($migration),
        ];
    }
}
