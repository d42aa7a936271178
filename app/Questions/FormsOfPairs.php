<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliverySample;
use NineTally\Core\Advice\BlankTokenAdvice;
use NineTally\Core\Advice\FormAdvice;
use NineTally\Core\Advice\FormProposal;
use NineTally\Core\Advice\FormWay;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\DeclaredReading;

/**
 * In which kinds and forms the pairs of columns should be read, and which values mean blank: from the rows that meet, where the rows of
 * some keys have been drawn, else from the values of both columns.
 *
 * @phpstan-import-type Declared from DeclaredReading
 *
 * @phpstan-type AskedPair array{source: string, target: string, declared: array{source: Declared, target: Declared}}
 * @phpstan-type MetRow array{int, int, list<string>, list<string>}
 */
final readonly class FormsOfPairs implements QuickQuestion
{
    /** Rows that meet: more would take longer than somebody waits, and tell no more. */
    private const MOST_ROWS = 1_500;

    private const EXAMPLES = 3;

    /**
     * @param  list<AskedPair>  $pairs
     * @param  string|null  $drawn  digest of the rows of some keys; null while there are none
     * @param  string|null  $plan  as JSON: which of these rows meet
     * @param  bool  $hasProfiles  whether all values of both sides have been looked at
     * @param  int  $thisYear  two-digit years are held against
     */
    public function __construct(
        private BothSides $sides,
        private array $pairs,
        private ?string $drawn,
        private ?string $plan,
        private bool $hasProfiles,
        private int $thisYear,
    ) {}

    public function kind(): string
    {
        return 'how-values-are-written';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->pairs, $this->drawn, $this->hasProfiles, $this->thisYear];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $readings = new ColumnReadings(new DeliverySample($material->reader, $material->sides, isPatient: true), $this->sides);
        ['columns' => $columns, 'met' => $met] = $this->met($material);
        $advice = new FormAdvice($this->thisYear);
        $forms = $tokens = [];
        foreach ($this->pairs as $nth => $pair) {
            $onProgress($nth, count($this->pairs));
            [$at, $otherAt] = [
                array_search($pair['source'], $columns['source'], true),
                array_search($pair['target'], $columns['target'], true),
            ];
            $cells =
                $at === false || $otherAt === false
                    ? []
                    : array_map(static fn(array $row): array => [$row[2][$at], $row[3][$otherAt]], $met);
            [$ofSource, $ofTarget] = [$pair['declared']['source'], $pair['declared']['target']];
            $proposal = $advice->of(
                $readings->of(Side::Source, $pair['source'], $ofSource),
                $readings->of(Side::Target, $pair['target'], $ofTarget),
                $this->withoutTokens($cells, $ofSource['blankTokens'] ?? [], $ofTarget['blankTokens'] ?? []),
                $cells === []
                    ? [$readings->values(Side::Source, $pair['source']), $readings->values(Side::Target, $pair['target'])]
                    : [[], []],
            );
            if ($proposal !== null) {
                $forms[] = ['source' => $pair['source'], 'target' => $pair['target']] + $this->told($proposal, $pair, $cells, $met);
            }
            array_push($tokens, ...$this->tokens($pair, $cells));
        }

        return ['forms' => $forms, 'tokens' => $tokens];
    }

    /**
     * @param  AskedPair  $pair
     * @param  list<array{string, string}>  $cells
     * @param  list<MetRow>  $met
     * @return array<string, mixed>
     */
    private function told(FormProposal $proposal, array $pair, array $cells, array $met): array
    {
        return [
            'kind' => $proposal->ways[0]->kind->value,
            'compared' => $proposal->compared,
            'asText' => $proposal->asText,
            'isOfRows' => $proposal->isOfRows,
            'ways' => array_map(static fn(FormWay $way): array => [
                'source' => (object) array_diff_key($way->source, $pair['declared']['source']),
                'target' => (object) array_diff_key($way->target, $pair['declared']['target']),
                'agree' => $way->count(),
            ], $proposal->ways),
            'rows' => $proposal->isOfRows
                ? array_map(static fn(int $row): array => [
                    'sourceLine' => RecordPlace::ofPacked($met[$row][0])->line,
                    'targetLine' => RecordPlace::ofPacked($met[$row][1])->line,
                    'source' => $cells[$row][0],
                    'target' => $cells[$row][1],
                ], array_slice($proposal->rows, 0, self::EXAMPLES))
                : [],
        ];
    }

    /**
     * @param  AskedPair  $pair
     * @param  list<array{string, string}>  $cells
     * @return list<array{side: string, column: string, token: string, rows: int, blank: int}>
     */
    private function tokens(array $pair, array $cells): array
    {
        $tokens = [];
        foreach (Side::cases() as $side) {
            $ofSide = $side === Side::Source ? $cells : array_map(static fn(array $both): array => [$both[1], $both[0]], $cells);
            foreach ((new BlankTokenAdvice)->of($ofSide) as $token) {
                if (! in_array($token['token'], $pair['declared'][$side->value]['blankTokens'] ?? [], true)) {
                    $tokens[] = ['side' => $side->value, 'column' => $pair[$side->value]] + $token;
                }
            }
        }

        return $tokens;
    }

    /**
     * @param  list<array{string, string}>  $cells
     * @param  list<string>  $ofSource  that mean blank
     * @param  list<string>  $ofTarget
     * @return list<array{string, string}>
     */
    private function withoutTokens(array $cells, array $ofSource, array $ofTarget): array
    {
        return $ofSource === [] && $ofTarget === [] ? $cells : array_map(
            static fn(array $both): array => [
                in_array($both[0], $ofSource, true) ? '' : $both[0],
                in_array($both[1], $ofTarget, true) ? '' : $both[1],
            ],
            $cells,
        );
    }

    /**
     * Rows of the drawn keys that meet one to one.
     *
     * @return array{columns: array{source: list<string>, target: list<string>}, met: list<MetRow>}
     */
    private function met(QuestionContext $material): array
    {
        $sample = $this->drawn === null ? null : $material->samples->held($this->drawn);
        if ($sample === null || $this->plan === null) {
            return ['columns' => ['source' => [], 'target' => []], 'met' => []];
        }
        $plan = Plan::fromJson($this->plan);
        $byKey = [];
        foreach (Side::cases() as $side) {
            $form = $plan->keyForm($side, (new CauseCatalogue)->forms);
            $places = array_map(
                static fn(string $name): int => (int) array_search($name, $sample[$side->value]['columns'], true),
                $plan->keyNames($side),
            );
            foreach ($sample[$side->value]['rows'] as $row) {
                $key = $form->canonical(array_map(static fn(int $place): string => $row[1][$place], $places));
                $byKey[$key][$side->value][] = $row;
            }
        }
        $met = [];
        foreach ($byKey as $rows) {
            if (count($rows['source'] ?? []) === 1 && count($rows['target'] ?? []) === 1) {
                $met[] = [$rows['source'][0][0], $rows['target'][0][0], $rows['source'][0][1], $rows['target'][0][1]];
                if (count($met) === self::MOST_ROWS) {
                    break;
                }
            }
        }

        return ['columns' => ['source' => $sample['source']['columns'], 'target' => $sample['target']['columns']], 'met' => $met];
    }
}
