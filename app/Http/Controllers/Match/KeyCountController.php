<?php

declare(strict_types=1);

namespace App\Http\Controllers\Match;

use App\Actions\Match\CountKey;
use App\Http\Controllers\Controller;
use App\Http\Requests\Match\CountKeyRequest;
use App\Models\Dataset;
use App\Problems\Conflict;
use Illuminate\Http\JsonResponse;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

final class KeyCountController extends Controller
{
    public function store(CountKeyRequest $request, Dataset $dataset, CountKey $countKey): JsonResponse
    {
        $draft = $dataset->draftNow();
        $counts = [];
        foreach (Side::cases() as $side) {
            $delivery =
                $dataset->latestDelivery($side) ?? throw Conflict::because('no-delivery', "The {$side->value} side has no delivery yet.");
            $counts[$side->value] = $countKey($delivery, $request->columns($side), $draft?->rules($side) ?? new SideRules);
        }

        return response()->json($counts);
    }
}
