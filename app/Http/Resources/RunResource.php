<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Run;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Run $resource */
final class RunResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $run = $this->resource;

        return [
            'id' => $run->id,
            'state' => $run->state->value,
            'isOver' => $run->state->isOver(),
            'done' => $run->done,
            'secondsLeft' => $this->secondsLeft(),
            'figures' => [
                'sourceRows' => $run->figures['sourceRows'] ?? 0,
                'targetRows' => $run->figures['targetRows'] ?? 0,
                'slicesMatched' => $run->figures['slicesMatched'] ?? 0,
                'slices' => $run->figures['slices'] ?? 0,
                'agreed' => $run->figures['agreed'] ?? 0,
                'changed' => $run->figures['changed'] ?? 0,
            ],
            'problem' => $run->problem,
            'attempts' => $run->attempts,
            'planVersion' => $run->planVersion->number,
            'sourceDelivered' => $run->sourceDelivery->delivered_count,
            'targetDelivered' => $run->targetDelivery->delivered_count,
            'name' => $run->name ?? '',
            'tallyId' => $run->tally_id,
            'startedBy' => $run->user->name,
            'startedAt' => ($run->started_at ?? $run->created_at)->toIso8601ZuluString(),
        ];
    }

    /** Known after a tenth of the work; before that it would be a guess. */
    private function secondsLeft(): ?int
    {
        $run = $this->resource;
        if ($run->state->isOver() || $run->done < 0.1 || $run->started_at === null) {
            return null;
        }
        $elapsed = max(1.0, $run->started_at->diffInSeconds(now()));

        return (int) ceil($elapsed / $run->done - $elapsed);
    }
}
