<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Ruling;

/** Why and by whom the findings of a page were ruled on: few acts stand on many findings, so each is said once. */
final readonly class StandingActs
{
    /**
     * @param  list<RulableRow>|list<RulableCell>  $findings
     * @return list<array{id: int, reason: string, ticket: string|null, by: string, asked: string|null}>
     */
    public function of(array $findings): array
    {
        $ids = [];
        foreach ($findings as $finding) {
            if ($finding->standing->rulingId !== null) {
                $ids[$finding->standing->rulingId] = true;
            }
        }

        return $ids === []
            ? []
            : array_values(
                Ruling::query()
                    ->whereIntegerInRaw('id', array_keys($ids))
                    ->with(['user', 'asked'])
                    ->orderBy('id')
                    ->get()
                    ->map(static fn(Ruling $act): array => [
                        'id' => $act->id,
                        'reason' => $act->reason,
                        'ticket' => $act->ticket,
                        'by' => $act->user->name,
                        'asked' => $act->asked?->name,
                    ])
                    ->all(),
            );
    }
}
