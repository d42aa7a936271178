<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliveryReader;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\Pattern;
use NineTally\Core\Intake\InMemoryReader;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Profile\Repeats\StakeColumn;
use NineTally\Core\Repeats\RepeatsPolicy;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\Trial\PolicyTrial;
use NineTally\Core\Tally\Trial\RepeatedKeyRows;
use NineTally\Core\Tally\Trial\TriedPolicy;
use NineTally\Core\Value\Kind;

/**
 * What each of some policies would do with the rows whose key repeats. Of two it is also said in which groups they keep different rows, and
 * how their patterns compare.
 *
 * @phpstan-import-type SideDocument from \NineTally\Core\Plan\PlanDocument
 *
 * @phpstan-type PolicyDocument array<string, mixed>
 * @phpstan-type ShownRow array{part: int, line: int, cells: list<string>}
 */
final readonly class PoliciesTried implements Question
{
    /** Groups that are shown of those in which two policies keep different rows. */
    private const MOST_GROUPS = 30;

    /** Rows of a side of a group that are shown. */
    private const MOST_ROWS = 12;

    private const MOST_PATTERNS = 60;

    private const SHARE_READING = 40;

    /**
     * @param  string  $plan  as JSON, without what it says of repeats
     * @param  non-empty-list<array{source: PolicyDocument, target: PolicyDocument}>  $policies
     * @param  array{source: string, target: string}|null  $stake  columns of numbers of which is told what is left out
     */
    public function __construct(private BothSides $sides, private string $plan, private array $policies, private ?array $stake = null) {}

    public function kind(): string
    {
        return 'policies-tried';
    }

    public function about(): array
    {
        return [$this->sides->about(), $this->plan, $this->policies, $this->stake];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $material->withFolder(function (string $folder) use ($material, $onProgress): array {
            $plan = Plan::fromJson($this->plan);
            $forms = (new CauseCatalogue)->forms;
            $readers = Sides::each(fn(Side $side): Reader => $this->sides->reader($material, $side));
            $bytes = max(1, 2 * ($readers->source->bytes() + $readers->target->bytes()));
            $told = static fn(float $percent) => $onProgress((int) $percent, 100);
            [$rows, $keys] = (new RepeatedKeyRows($plan, $readers, $folder, $forms))->found(
                static fn(int $read) => $told(self::SHARE_READING * $read / $bytes),
            );
            $trial = new PolicyTrial($plan, $rows, $folder, $forms, $this->stakes($plan, $readers));
            $tried = [];
            foreach ($this->policies as $number => $policies) {
                $tried[] = $trial->of($this->policies($policies));
                $told(self::SHARE_READING + (100 - self::SHARE_READING) * ($number + 1) / count($this->policies));
            }

            return [
                'keys' => $keys,
                'chosen' => count($plan->keptRows()),
                'tried' => array_map(static fn(TriedPolicy $one): array => $one->toArray(), $tried),
                'columns' => $readers->map(static fn(Reader $reader): array => $reader->columns()->names)->named(),
                'beside' => count($tried) === 2 ? $this->beside($trial, $plan, $tried[0], $tried[1]) : null,
            ];
        });
    }

    /**
     * @param  array{source: PolicyDocument, target: PolicyDocument}  $policies
     * @return Sides<RepeatsPolicy>
     *
     * @throws \NineTally\Core\Plan\UnusablePlan
     */
    private function policies(array $policies): Sides
    {
        $plan = Plan::fromJson(self::planWith($this->plan, $policies));

        return Sides::each(static fn(Side $side): RepeatsPolicy => $plan->side($side)->repeats);
    }

    /** @param array{source: PolicyDocument, target: PolicyDocument} $policies */
    public static function planWith(string $plan, array $policies): string
    {
        /** @var array{sides?: array<string, array<string, mixed>>, ...} $document */
        $document = json_decode($plan, true, 64, JSON_THROW_ON_ERROR);
        foreach ($policies as $side => $policy) {
            $document['sides'][$side]['repeats'] = $policy;
        }

        return CanonicalJson::of($document);
    }

    /**
     * @param  Sides<Reader>  $readers
     * @return Sides<StakeColumn>|null
     */
    private function stakes(Plan $plan, Sides $readers): ?Sides
    {
        $stake = $this->stake;

        return $stake === null ? null : Sides::each(static fn(Side $side): StakeColumn => new StakeColumn(
            $readers->of($side)->columns()->positionOf($stake[$side->value]),
            $plan->side($side)->reading($stake[$side->value], Kind::Number),
        ));
    }

    /** @return array{differ: int, judged: int, groups: list<array<string, mixed>>, patterns: list<array<string, mixed>>} */
    private function beside(PolicyTrial $trial, Plan $plan, TriedPolicy $one, TriedPolicy $other): array
    {
        $differing = $one->differsFrom($other);
        $telling = $others = [];
        foreach ($differing as $group) {
            [, $key] = PolicyTrial::ofGroup($group);
            if ($one->judgesOtherwise($other, $key)) {
                $telling[$key] = true;
            } else {
                $others[$key] = true;
            }
        }
        $keys = $telling + $others;
        $rows = $trial->ofKeys(array_slice($keys, 0, self::MOST_GROUPS, true));
        /** @var array<array-key, array<'source'|'target', array<string, mixed>>> $groups in the order of the keys */
        $groups = array_map(static fn(bool $_): array => [], array_slice($keys, 0, self::MOST_GROUPS, true));
        foreach (Side::cases() as $side) {
            foreach ($trial->byKey($side, $rows->of($side)) as $key => $ofKey) {
                $group = PolicyTrial::group($side, (string) $key);
                $kept = array_map(static fn(TriedPolicy $policy): ?int => $policy->kept[$group] ?? null, [$one, $other]);
                $groups[$key][$side->value] = [
                    'count' => count($ofKey),
                    'rows' => $this->shown($rows->of($side), $ofKey, $kept),
                    'kept' => array_map(self::place(...), $kept),
                ];
            }
        }
        $none = ['count' => 0, 'rows' => [], 'kept' => [null, null]];

        return [
            'differ' => count($keys),
            'judged' => count($telling),
            'groups' => array_map(static fn(array $group): array => $group + ['source' => $none, 'target' => $none], array_values($groups)),
            'patterns' => $this->patterns($plan, $one, $other),
        ];
    }

    /** @return array{part: int, line: int}|null null where all rows are compared; line 0 where none is */
    private static function place(?int $packed): ?array
    {
        $place = $packed === null ? null : RecordPlace::ofPacked($packed);

        return $place === null ? null : ['part' => $place->part, 'line' => $place->line];
    }

    /**
     * @param  list<Row>  $rows
     * @param  list<int|null>  $kept  packed places
     * @return list<ShownRow> the first, and those that are kept wherever they stand
     */
    private function shown(InMemoryReader $reader, array $rows, array $kept): array
    {
        $shown = [];
        foreach ($rows as $nth => $row) {
            $place = $reader->place($row->line);
            if ($nth < self::MOST_ROWS || in_array($place->packed(), $kept, true)) {
                $cells = array_map(DeliveryReader::shortened(...), $row->cells);
                $shown[] = ['part' => $place->part, 'line' => $place->line, 'cells' => $cells];
            }
        }

        return $shown;
    }

    /** @return list<array{source: string, class: string, sentence: string, cells: array{int, int}}> the largest first */
    private function patterns(Plan $plan, TriedPolicy $one, TriedPolicy $other): array
    {
        $patterns = [];
        foreach ([$one, $other] as $number => $policy) {
            foreach ($policy->summary->findingPatterns() as $pattern) {
                $patterns[self::identity($pattern)] ??= [
                    'source' => $plan->columnPairs[$pattern->pairPosition]->source,
                    'class' => $pattern->class->value,
                    'sentence' => CauseId::sentenceFor($pattern->cause, $pattern->facts),
                    'cells' => [0, 0],
                ];
                $patterns[self::identity($pattern)]['cells'][$number] = $pattern->cells;
            }
        }
        usort($patterns, static fn(array $a, array $b): int => [max($b['cells']), $a['source']] <=> [max($a['cells']), $b['source']]);

        return array_slice($patterns, 0, self::MOST_PATTERNS);
    }

    private static function identity(Pattern $pattern): string
    {
        return json_encode([$pattern->pairPosition, $pattern->class->value, $pattern->cause, $pattern->facts], JSON_THROW_ON_ERROR);
    }
}
