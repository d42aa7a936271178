<?php

declare(strict_types=1);

namespace App\Queries\Review;

use App\Models\Answer;
use App\Models\DefectEntry;
use App\Models\Ruling;
use App\Models\RulingScope;

/** The defects of a dataset, the newest first, each with who mends it and what became of it in the data. */
final readonly class Defects
{
    /**
     * @param  array{words?: string, ticket?: string, mends?: string}  $filter  words: of ticket, person, reason or what it is about
     * @return list<array{act: int, tally: int, about: string, of: string, reason: string, ticket: string|null, by: string, at: string,
     *     mends: string, due: string|null, findings: int, open: int, state: 'open'|'gone'|'came-back', since: int|null}>
     */
    public function of(Answer $histories, Mask $mask, array $filter = []): array
    {
        /** @var list<array{act: int, history: list<array{tally: int, findings: int}>}> $known */
        $known = $histories->content['acts'] ?? [];
        $byAct = array_column($known, 'history', 'act');
        $acts = Ruling::query()->whereIntegerInRaw('id', array_keys($byAct))->with(['user', 'tally.patterns'])->orderByDesc('id')->get();
        $entries = DefectEntry::query()->whereIntegerInRaw('ruling_id', $acts->pluck('id'))->orderBy('id')->get()->keyBy('ruling_id');

        $defects = array_values(
            $acts
                ->map(
                    fn(Ruling $act): array => [
                        'act' => $act->id,
                        'tally' => $act->tally->number,
                        'about' => ActWords::of($act, $mask),
                        'of' =>
                            in_array($act->scope, [RulingScope::Row, RulingScope::RowClass], true) || ($act->filter['of'] ?? '') === 'rows'
                                ? 'rows'
                                : 'cells',
                        'reason' => $act->reason,
                        'ticket' => $act->ticket,
                        'by' => $act->user->name,
                        'at' => $act->created_at->toIso8601ZuluString(),
                        'mends' => $entries->get($act->id)->mends ?? '',
                        'due' => $entries->get($act->id)?->due,
                        ...$this->state($byAct[$act->id] ?? []),
                    ],
                )
                ->all(),
        );

        return array_values(array_filter($defects, static fn(array $defect): bool => self::isMeant($defect, $filter)));
    }

    /**
     * @param  array{ticket: string|null, mends: string, reason: string, about: string, by: string, ...}  $defect
     * @param  array{words?: string, ticket?: string, mends?: string}  $filter
     */
    private static function isMeant(array $defect, array $filter): bool
    {
        $all = mb_strtolower(implode("\n", [$defect['ticket'], $defect['mends'], $defect['reason'], $defect['about'], $defect['by']]));

        return ($filter['ticket'] ?? $defect['ticket']) === $defect['ticket'] &&
            ($filter['mends'] ?? $defect['mends']) === $defect['mends'] &&
            str_contains($all, mb_strtolower(trim($filter['words'] ?? '')));
    }

    /**
     * @param  list<array{tally: int, findings: int}>  $history
     * @return array{findings: int, open: int, state: 'open'|'gone'|'came-back', since: int|null} since: the tally in which it was gone
     *     first, or there again
     */
    private function state(array $history): array
    {
        $findings = $history[0]['findings'] ?? 0;
        $open = $history[count($history) - 1]['findings'] ?? 0;
        $since = null;
        foreach ($history as $place => ['tally' => $tally, 'findings' => $there]) {
            if ($place > 0 && ($there === 0) !== ($history[$place - 1]['findings'] === 0)) {
                $since = $tally;
            }
        }

        return [
            'findings' => $findings,
            'open' => $open,
            'state' => $open === 0 && $findings > 0 ? 'gone' : ($since === null ? 'open' : 'came-back'),
            'since' => $since,
        ];
    }
}
