<?php

declare(strict_types=1);

namespace App\Queries\Board;

use App\Models\Dataset;
use App\Models\Ruling;

/** The newest act, tally and draft of a dataset, each found by an index: asked for again and again while somebody looks at it. */
final readonly class News
{
    /** @return array<string, mixed> */
    public function of(Dataset $dataset): array
    {
        $tally = $dataset->tallies()->orderByDesc('number')->first(['id', 'number', 'user_id']);
        $act = $tally === null ? null : Ruling::query()->where('tally_id', $tally->id)->with('user')->orderByDesc('id')->first();
        $draft = $dataset->draft()->with('user')->first(['dataset_id', 'number', 'user_id', 'updated_at']);

        return [
            'tally' => $tally === null ? null : ['id' => $tally->id, 'number' => $tally->number, 'by' => $tally->user->name],
            'act' => $act === null ? null : [
                'id' => $act->id,
                'by' => $act->user->name,
                'decision' => $act->decision?->value,
                'findings' => $act->findings,
            ],
            'draft' => $draft === null ? null : ['number' => $draft->number, 'by' => $draft->user->name ?? ''],
            'run' => $dataset->runs()->orderByDesc('id')->value('id'),
        ];
    }
}
