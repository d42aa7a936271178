<?php

declare(strict_types=1);

namespace App\Actions\Review;

use App\Models\Tally;
use App\Queries\Review\Mask;
use App\Queries\Review\NearColumns;
use App\Queries\Review\NearPairs;
use App\Queries\Review\RuledPairs;
use App\Questions\Answers;
use App\Questions\NearRows;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Plan\Bridges;

/**
 * Missing and extra rows that are likely to be the same, each row once. Nothing is decided by it.
 *
 * @phpstan-import-type Look from NearRows
 * @phpstan-import-type Found from NearRows
 */
final readonly class LookForNearKeys
{
    public function __construct(private Answers $answers, private NearColumns $columns, private RuledPairs $ruled) {}

    /**
     * @param  list<Look>  $columns  none for those that are proposed
     * @param  array{score?: float|null, margin?: float|null, state?: string|null, order?: string|null, from?: int|null}  $page
     * @param  bool  $isAgain  looked for once more where somebody gave it up, or it failed
     * @return array<string, mixed>
     *
     * @throws \App\Problems\ValuesAreMasked when rows would be put together by values that are masked
     */
    public function __invoke(Tally $tally, Mask $mask, array $columns, array $page, bool $isAgain = false): array
    {
        $available = $this->columns->available($tally, $mask);
        $proposed = $this->columns->proposed($tally, $mask);
        $columns = $columns === [] ? array_map(self::look(...), $proposed) : $columns;
        foreach ($columns as $column) {
            if ($mask->hidesColumn($column['source']) || $mask->hidesColumn($column['target'])) {
                $mask->mustNotSearch();
            }
        }
        $draft = $tally->dataset->draftNow();
        $bridges = Bridges::fromDocument($draft->document ?? []);
        $equivalents = $bridges->equivalents;
        $told = [
            'available' => $available,
            'proposed' => array_map(static fn(array $one): array => ['kind' => $one['kind']->value] + $one, $proposed),
            'columns' => $columns,
            'equivalents' => $bridges->words(),
            'draft' => $draft->number ?? 0,
        ];
        if ($columns === []) {
            return ['isCancelled' => false, 'isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, ...$told, 'found' => null];
        }
        $question = new NearRows($tally->id, $columns, $equivalents);
        $answer = $isAgain ? $this->answers->again($question) : $this->answers->to($question);
        /** @var Found|null $found */
        $found = $answer->content;

        $pairs = $found === null ? null : (new NearPairs($tally, $columns, $equivalents, $found))->page($mask, $page);

        return [
            'isCancelled' => $answer->state === 'cancelled',
            ...$answer->progress(),
            ...$told,
            'found' => $pairs === null ? null : [...$pairs, 'items' => $this->ruled->with($tally, $pairs['items'])],
        ];
    }

    /**
     * @param  non-empty-list<Look>  $columns
     */
    public function cancel(Tally $tally, array $columns): void
    {
        $equivalents = Bridges::fromDocument($tally->dataset->draftNow()->document ?? [])->equivalents;
        $this->answers->cancel(new NearRows($tally->id, $columns, $equivalents));
    }

    /**
     * @param  array{source: string, target: string, kind: LikenessKind, weight: int, ...}  $proposed
     * @return Look
     */
    private static function look(array $proposed): array
    {
        return [
            'source' => $proposed['source'],
            'target' => $proposed['target'],
            'kind' => $proposed['kind']->value,
            'weight' => $proposed['weight'],
        ];
    }
}
