<?php

declare(strict_types=1);

namespace App\Actions\Match;

use App\Adapters\Deliveries\DeliverySample;
use App\Models\Answer;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Questions\Answers;
use App\Questions\BothSides;
use App\Questions\CandidateKeys;
use App\Questions\KeyCheck;
use Illuminate\Database\Connection;
use NineTally\Core\Advice\KeyAdvice;
use NineTally\Core\Figures\Percentage;
use NineTally\Core\Row\Side;

/**
 * Which of the paired columns tell rows apart: from samples at once, and held against all rows as soon as a worker has looked.
 *
 * @phpstan-type Pair array{source: string, target: string}
 * @phpstan-type Repeats array{source: int, target: int}
 * @phpstan-type Found array{columns: non-empty-list<Pair>, rows: Repeats, repeats: Repeats, shorter: list<array{without: string,
 *     repeats: Repeats}>}
 * @phpstan-type Held array{repeats: Repeats, unkeyed: Repeats, meets: int, oneToOne: int, couldMeet: int}
 * @phpstan-type Advised array{columns: non-empty-list<Pair>, rows: Repeats, repeats: Repeats, unkeyed: Repeats, meets: int|null,
 *     oneToOne: int|null, couldMeet: int|null, shorter: list<array{without: string, repeats: Repeats}>, isOfAllRows: bool}
 */
final readonly class AdviseKeys
{
    /** Where less than half of the rows meet, nothing is put into a plan that nobody chose. */
    public const AT_LEAST = 0.5;

    public function __construct(private Answers $answers, private DeliverySample $sample, private Connection $database) {}

    /** @return array<string, mixed> */
    public function __invoke(Dataset $dataset, BothSides $sides, Answer $pairs): array
    {
        $paired = $this->paired($dataset, $pairs);
        if ($paired === []) {
            return self::none();
        }
        $answer = $this->answers->to(new CandidateKeys($sides, $paired));
        $found = $this->found($answer);
        if ($found === []) {
            return [...self::none(), ...$answer->progress(), 'hasSearched' => $answer->content !== null];
        }
        $held = $this->answers->to(new KeyCheck($sides, array_column($found, 'columns')));
        /** @var array{rows: Repeats, keys: list<Held>}|null $onAll */
        $onAll = $held->content;
        $advised = array_map(static fn(array $key): array => $key + [
            'unkeyed' => ['source' => 0, 'target' => 0],
            'meets' => null,
            'oneToOne' => null,
            'couldMeet' => null,
            'isOfAllRows' => false,
        ], $found);
        if ($onAll !== null) {
            $advised = $this->ranked($sides, $paired, $found, $onAll);
            $this->adopt($dataset, $advised[0] ?? null);
        }

        return [
            ...$held->progress(),
            'hasSearched' => true,
            'advised' => array_map(
                static fn(array $key): array => $key + [
                    'meetsShare' => $key['meets'] === null ? null : (new Percentage($key['meets'], $key['rows']['source']))->text(),
                ],
                $advised,
            ),
        ];
    }

    /** @return list<CandidateKeys|KeyCheck> those that have been asked so far */
    public function questions(Dataset $dataset, BothSides $sides, Answer $pairs): array
    {
        $paired = $this->paired($dataset, $pairs);
        if ($paired === []) {
            return [];
        }
        $search = new CandidateKeys($sides, $paired);
        $found = $this->found($this->answers->to($search));

        return $found === [] ? [$search] : [$search, new KeyCheck($sides, array_column($found, 'columns'))];
    }

    /** @return array<string, mixed> */
    public static function none(): array
    {
        return ['isWaiting' => false, 'done' => 0, 'total' => 0, 'problem' => null, 'hasSearched' => false, 'advised' => []];
    }

    /**
     * @param  non-empty-list<Pair>  $paired
     * @param  list<Found>  $found
     * @param  array{rows: Repeats, keys: list<Held>}  $onAll
     * @return list<Advised> without those that no row would meet by
     */
    private function ranked(BothSides $sides, array $paired, array $found, array $onAll): array
    {
        $advised = [];
        foreach ($found as $nth => $key) {
            $held = $onAll['keys'][$nth];
            if ($held['couldMeet'] > 0 || $held['meets'] > 0) {
                $advised[] = ['columns' => $key['columns'], 'shorter' => $key['shorter']] +
                    $held + ['rows' => $onAll['rows'], 'isOfAllRows' => true];
            }
        }
        $names = array_column($paired, 'source');
        $ranking = KeyAdvice::ranking($names, CandidateKeys::cells($this->sample, $sides, $paired));
        $order = KeyAdvice::ranked($ranking, array_map(static fn(array $key): array => [
            'places' => array_map(static fn(array $column): int => (int) array_search($column['source'], $names, true), $key['columns']),
            'share' => $key['couldMeet'] / max(1, $key['rows']['source']),
        ], $advised));

        return array_map(static fn(int $nth): array => $advised[$nth], $order);
    }

    /**
     * Puts the best key into a draft that nobody has worked on yet and that has none, where at least half of the rows meet one to one.
     *
     * @param  Advised|null  $best
     */
    private function adopt(Dataset $dataset, ?array $best): void
    {
        if ($best === null || $best['couldMeet'] < self::AT_LEAST * $best['rows']['source']) {
            return;
        }
        $this->database->transaction(static function () use ($dataset, $best): void {
            $draft = PlanDraft::query()->lockForUpdate()->find($dataset->id);
            if ($draft === null || $draft->number !== 1 || $draft->user_id !== null || $draft->document['key'] !== []) {
                return;
            }
            /** @var list<array{source: string, target: string}> $pairs */
            $pairs = $draft->document['columnPairs'];
            // A pair that is only proposed is nobody's word for what a row is.
            $known = array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], $pairs);
            if (array_filter($best['columns'], static fn(array $column): bool => ! in_array($column, $known, true)) !== []) {
                return;
            }
            $isOfKey = static fn(array $pair): bool => in_array(
                ['source' => $pair['source'], 'target' => $pair['target']],
                $best['columns'],
                true,
            );
            $draft->update([
                'document' => [
                    ...$draft->document,
                    'key' => $best['columns'],
                    'columnPairs' => array_values(array_filter($pairs, static fn(array $pair): bool => ! $isOfKey($pair))),
                ],
                'number' => 2,
            ]);
        });
    }

    /** @return list<Pair> of the draft, in the order of the source; of strong proposals where the draft has none */
    private function paired(Dataset $dataset, Answer $pairs): array
    {
        /** @var array{key: list<Pair>, columnPairs: list<Pair>}|null $document */
        $document = $dataset->draftNow()?->document;
        $paired = array_map(static fn(array $pair): array => ['source' => $pair['source'], 'target' => $pair['target']], [
            ...$document['key'] ?? [],
            ...$document['columnPairs'] ?? [],
        ]);
        // Columns that are proposed to belong together may be the key as well as those that do already.
        $taken = [array_column($paired, 'source'), array_column($paired, 'target')];
        /** @var list<array{source: string, target: string, strength: string}> $proposals */
        $proposals = $pairs->content['proposals'] ?? [];
        foreach ($proposals as $proposal) {
            $isFree = ! in_array($proposal['source'], $taken[0], true) && ! in_array($proposal['target'], $taken[1], true);
            if ($isFree && $proposal['strength'] !== 'weak') {
                $paired[] = ['source' => $proposal['source'], 'target' => $proposal['target']];
            }
        }
        $places = array_flip($dataset->latestDelivery(Side::Source)->columns ?? []);
        usort(
            $paired,
            static fn(array $one, array $other): int => ($places[$one['source']] ?? PHP_INT_MAX) <=>
                ($places[$other['source']] ?? PHP_INT_MAX),
        );

        return $paired;
    }

    /** @return list<Found> */
    private function found(Answer $answer): array
    {
        /** @var list<Found> $keys */
        $keys = $answer->content['keys'] ?? [];

        return $keys;
    }
}
