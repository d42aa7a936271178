<?php

declare(strict_types=1);

namespace App\Questions;

use App\Adapters\Deliveries\DeliveryReader;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Profile\Repeats\LookedGroup;
use NineTally\Core\Profile\Repeats\LookedSide;
use NineTally\Core\Profile\Repeats\NeighbouringLooks;
use NineTally\Core\Profile\Repeats\RepeatGroup;
use NineTally\Core\Profile\Repeats\RepeatLook;
use NineTally\Core\Profile\Repeats\RepeatsFound;
use NineTally\Core\Profile\Repeats\StakeColumn;
use NineTally\Core\Row\RecordPlace;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/** Which rows of both sides share the values of some columns, in which columns they differ, and where the repeats come from. */
final readonly class HowRowsRepeat implements Question
{
    private const ROWS_BETWEEN_REPORTS = 5_000;

    /**
     * @param  non-empty-list<array{source: string, target: string, forgives: list<string>}>  $pairs  prepared columns whose values are
     *     shared, with the causes of form that make no difference there
     * @param  bool  $isKey  whether these are the key and what it forgives, so that a person can choose which row is kept
     * @param  array{source: list<string>, target: list<string>}  $except  columns in which copies may differ
     * @param  array{source: string, target: string}|null  $stake  columns of numbers whose totals the repeats add to
     * @param  list<array{source: string, target: string}>  $others  columns that rows could share too
     */
    public function __construct(
        private BothSides $sides,
        private array $pairs,
        public bool $isKey,
        private array $except,
        private ?array $stake = null,
        private array $others = [],
    ) {}

    public function kind(): string
    {
        return 'how-rows-repeat';
    }

    public function about(): array
    {
        $declared = array_map(
            fn(Side $side): array => array_map(
                fn(string $column): array => $this->sides->rules($side)->preparation->formsBehind()->declared($column),
                array_column([...$this->pairs, ...$this->stake === null ? [] : [$this->stake]], $side->value),
            ),
            Side::cases(),
        );

        return [$this->sides->about(), $this->pairs, $declared, $this->isKey, $this->except, $this->stake, $this->others];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        return $this->look($material, $onProgress, PHP_INT_MAX);
    }

    /**
     * @param  \Closure(int, int): void  $onProgress  told how much is done, and of how much
     * @param  int  $most  rows of each side, from its beginning
     * @return array<string, mixed>
     */
    public function look(QuestionContext $material, \Closure $onProgress, int $most): array
    {
        return $material->withFolder(function (string $folder) use ($material, $onProgress, $most): array {
            $readers = [
                'source' => $this->sides->reader($material, Side::Source),
                'target' => $this->sides->reader($material, Side::Target),
            ];
            $sides = [
                'source' => $this->side(Side::Source, $readers['source']),
                'target' => $this->side(Side::Target, $readers['target']),
            ];
            $look = new RepeatLook($sides, $folder);
            $beside = [];
            $total = $readers['source']->bytes() + $readers['target']->bytes();
            $before = 0;
            foreach ($readers as $side => $reader) {
                $bytes = $rows = 0;
                $near = new NeighbouringLooks($sides[$side], $reader->columns()->positionsOf(array_column($this->others, $side)));
                foreach ($reader->records(static function (int $read) use (&$bytes): void {
                    $bytes = $read;
                }) as $row) {
                    if ($row instanceof Row) {
                        $look->see($side, $reader->place($row->line)->packed(), $row->cells);
                        $near->see($row->cells);
                        ++$rows % self::ROWS_BETWEEN_REPORTS === 0 && $onProgress($before + $bytes, $total);
                    }
                    if ($rows === $most) {
                        break;
                    }
                }
                $before += $reader->bytes();
                $beside[$side] = $near->found();
            }

            return $this->told($look->found(), $readers) + ['beside' => $beside, 'others' => $this->others];
        });
    }

    /** Whether the first rows can be had without preparing all of them. */
    public function hasNoSteps(): bool
    {
        return $this->sides->rules(Side::Source)->preparation->isEmpty() && $this->sides->rules(Side::Target)->preparation->isEmpty();
    }

    private function side(Side $side, Reader $reader): LookedSide
    {
        $names = array_column($this->pairs, $side->value);
        $forms = $this->sides->rules($side)->preparation->formsBehind();
        $columns = $reader->columns();

        return new LookedSide(
            $columns->names,
            $columns->positionsOf($names),
            new KeyForm(
                array_map(static fn(string $name): Reading => $forms->reading($name, Kind::Text), $names),
                array_column($this->pairs, 'forgives'),
                (new CauseCatalogue)->forms,
            ),
            $columns->positionsOf(array_values(array_intersect($this->except[$side->value], $columns->names))),
            $this->stake === null ? null : new StakeColumn(
                $columns->positionOf($this->stake[$side->value]),
                $forms->reading($this->stake[$side->value], Kind::Number),
            ),
            $this->isKey,
        );
    }

    /**
     * @param  array{source: Reader, target: Reader}  $readers
     * @return array<string, mixed> groups once, and by their places in the list where they belong
     */
    private function told(RepeatsFound $found, array $readers): array
    {
        /** @var array<int, int> $at places in the list, by object */
        $at = [];
        $groups = [];
        $places = static function (array $some) use (&$groups, &$at): array {
            /** @var list<RepeatGroup> $some */
            $listed = [];
            foreach ($some as $group) {
                $id = spl_object_id($group);
                if (! isset($at[$id])) {
                    $at[$id] = count($groups);
                    $groups[] = $group;
                }
                $listed[] = $at[$id];
            }

            return $listed;
        };
        $patterns = array_map(
            static fn(array $pattern): array => [...$pattern, 'largest' => $places($pattern['largest'])],
            $found->patterns(),
        );
        $largest = array_map($places, $found->largest());

        return [
            'columns' => ['source' => $readers['source']->columns()->names, 'target' => $readers['target']->columns()->names],
            'figures' => $found->figures(),
            'origins' => $found->origins(),
            'stakes' => $found->stakes(),
            'patterns' => $patterns,
            'orders' => [
                'size' => $largest['size'],
                'stake' => $largest['stake'],
                'differing' => $largest['differing'],
                'oneSide' => $largest['one side'],
            ],
            'groups' => array_map(fn(RepeatGroup $group): array => [
                'source' => $this->group(Side::Source, $group->source, $readers['source']),
                'target' => $this->group(Side::Target, $group->target, $readers['target']),
            ], $groups),
        ];
    }

    /**
     * @return array{count: int, isConflict: bool, isByForm: bool, differing: list<string>, surplus: string|null, digest: string|null,
     *     digests: list<string>, rows: list<array{part: int, line: int, cells: list<string>}>, key: list<string>}
     */
    private function group(Side $side, LookedGroup $group, Reader $reader): array
    {
        $places = $this->isKey ? $reader->columns()->positionsOf(array_column($this->pairs, $side->value)) : [];

        return [
            'count' => count($group->places),
            'isConflict' => $group->isConflict,
            'isByForm' => $group->isByForm,
            'differing' => $group->differing,
            'surplus' => $group->surplus === null ? null : (string) $group->surplus->total(),
            'digest' => $group->digest,
            'digests' => $group->digests,
            'rows' => array_map(static function (int $packed, array $cells): array {
                $place = RecordPlace::ofPacked($packed);

                return ['part' => $place->part, 'line' => $place->line, 'cells' => array_map(DeliveryReader::shortened(...), $cells)];
            }, array_slice($group->places, 0, count($group->shown)), $group->shown),
            'key' => array_map(static fn(int $place): string => $group->shown[0][$place] ?? '', $places),
        ];
    }
}
