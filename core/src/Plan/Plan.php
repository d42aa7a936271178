<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Cause\FormCombination;
use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Preparation\Preparation;
use NineTally\Core\Preparation\ReferenceRules;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Repeats\ChosenRow;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;

/**
 * Which row is which, what must be equal, and what may differ.
 */
final readonly class Plan
{
    public const FORMAT_VERSION = 3;

    /**
     * @param  non-empty-list<KeyColumn>  $key
     * @param  list<ColumnPair>  $columnPairs
     * @param  array{source: list<string>, target: list<string>}  $leftOut
     * @param  array<string, ReferenceRules>  $references  by name: how each is prepared and read
     */
    public function __construct(
        public array $key,
        public array $columnPairs,
        public array $leftOut = ['source' => [], 'target' => []],
        public SideRules $source = new SideRules,
        public SideRules $target = new SideRules,
        public Bridges $bridges = new Bridges,
        public array $references = [],
        public ColumnRules $columnRules = new ColumnRules,
    ) {}

    /**
     * Pairs the columns of equal name, and those that are mapped; what has no partner is left over and not compared.
     *
     * @param  list<string>  $key  source names
     * @param  array<string, string>  $map  source name => target name
     * @param  list<string>  $leaveOut  names on either side
     *
     * @throws UnusablePlan
     */
    public static function pairing(Columns $source, Columns $target, array $key, array $map = [], array $leaveOut = []): self
    {
        if ($key === []) {
            throw UnusablePlan::because([
                new Problem(
                    '/key',
                    sprintf(
                        'No key was given. Name the columns that tell one row from another, such as --key=%s.',
                        $source->names[0] ?? 'number',
                    ),
                ),
            ]);
        }
        foreach ($map as $sourceName => $targetName) {
            $source->positionOf($sourceName);
            $target->positionOf($targetName);
        }
        // A name that a header repeats leaves out all of its columns.
        $leaveOut = array_merge(
            ...array_map(
                static fn(string $name): array => [$name, ...$source->repeated()[$name] ?? [], ...$target->repeated()[$name] ?? []],
                $leaveOut,
            ),
        );
        foreach ($leaveOut as $name) {
            $isNamed = static fn(Columns $columns): bool => $columns->has($name) || isset($columns->repeated()[$name]);
            if (! $isNamed($source) && ! $isNamed($target)) {
                $source->positionOf($name);
            }
        }
        self::mustBeTold($source, $target, [...array_keys($map), ...$leaveOut]);
        self::mustBeTold($target, $source, [...array_values($map), ...$leaveOut]);
        $plan = new self(
            array_map(static fn(string $name): KeyColumn => new KeyColumn($name, $map[$name] ?? $name), $key),
            self::pairsByName($source, $target, $key, $map, $leaveOut),
            [
                'source' => array_values(array_intersect(array_unique($source->names), $leaveOut)),
                'target' => array_values(array_intersect(array_unique($target->names), $leaveOut)),
            ],
        );
        $plan->mustFit($source, $target);

        return $plan;
    }

    /**
     * A column of the one side must not go without a partner because the header of the other repeats its name.
     *
     * @param  list<string>  $settled  names that somebody mapped or left out
     *
     * @throws \NineTally\Core\Row\DuplicateColumn
     */
    private static function mustBeTold(Columns $repeating, Columns $other, array $settled): void
    {
        foreach ($repeating->repeated() as $name => $columns) {
            $partners = $other->repeated()[$name] ?? ($other->has((string) $name) ? [(string) $name] : $columns);
            if ($partners !== $columns && array_intersect([...$columns, ...$partners], $settled) === []) {
                $repeating->positionOf((string) $name);
            }
        }
    }

    /**
     * @param  list<string>  $key  source names, which are not compared
     * @param  array<string, string>  $map
     * @param  list<string>  $leaveOut
     * @return list<ColumnPair> in the column order of the source
     */
    public static function pairsByName(Columns $source, Columns $target, array $key = [], array $map = [], array $leaveOut = []): array
    {
        $taken = array_values($map);
        $pairs = [];
        foreach (array_unique($source->names) as $name) {
            $partner = $map[$name] ?? ($target->has($name) && ! in_array($name, $taken, true) ? $name : null);
            if ($partner !== null && array_intersect([$name, $partner], $leaveOut) === [] && ! in_array($name, $key, true)) {
                $pairs[] = ColumnPair::between($name, $partner);
            }
        }

        return $pairs;
    }

    /** @throws UnusablePlan with every problem and its place */
    public static function fromJson(string $json): self
    {
        return (new PlanDocument($json))->plan();
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'formatVersion' => self::FORMAT_VERSION,
            'key' => array_map(static fn(KeyColumn $column): array => $column->toArray(), $this->key),
            'columnPairs' => array_map(static fn(ColumnPair $pair): array => $pair->toArray(), $this->columnPairs),
            'leftOut' => $this->leftOut,
            ...array_filter([
                'sides' => array_filter(['source' => $this->source->toArray(), 'target' => $this->target->toArray()]),
                ...$this->bridges->toArrays(),
                'keptRows' => array_map(static fn(ChosenRow $chosen): array => $chosen->toArray(), $this->keptRows()),
                'references' => array_filter(array_map(static fn(ReferenceRules $rules): array => $rules->toArray(), $this->references)),
                'demands' => $this->columnRules->demands,
                'defaults' => array_filter(['forgives' => $this->columnRules->defaultForgives]),
                'sensitive' => array_filter($this->columnRules->sensitive),
                'totals' => array_map(static fn(ControlTotal $total): array => $total->toArray(), $this->columnRules->totals),
                'records' => array_map(static fn(RequiredRecord $rule): array => $rule->toArray(), $this->columnRules->records),
                'limits' => array_map(static fn(Limit $limit): array => $limit->toArray(), $this->columnRules->limits),
            ]),
        ];
    }

    public function canonicalJson(): string
    {
        return CanonicalJson::of($this->toArray());
    }

    public function digest(): string
    {
        return hash('sha256', $this->canonicalJson());
    }

    /** What makes two tallies speak of the same rows: part of every finding's identity. */
    public function keyDefinition(): string
    {
        return CanonicalJson::of(
            array_map(
                static fn(KeyColumn $column): array => [
                    $column->source,
                    $column->target,
                    ...$column->forgives === [] ? [] : [$column->forgives],
                ],
                $this->key,
            ),
        );
    }

    /** @return list<mixed> all that decides which rows meet: the key, and what each side declares about its cells */
    public function keyRules(): array
    {
        $declared = fn(Side $side): array => [
            $this->side($side)->declared,
            array_intersect_key($this->side($side)->columns, array_flip($this->keyNames($side))),
        ];

        return [$this->keyDefinition(), $declared(Side::Source), $declared(Side::Target)];
    }

    /** How a reference is prepared, as if it were a side: what it looks up from is prepared by the plan too. */
    public function reference(string $name): SideRules
    {
        $rules = $this->references[$name] ?? new ReferenceRules;

        return new SideRules(preparation: new Preparation($rules->preparation->steps, $rules->preparation->declared, $this->references));
    }

    /** @return list<ChosenRow> what people chose of rows that share a key */
    public function keptRows(): array
    {
        return [...$this->source->keptRows, ...$this->target->keptRows];
    }

    public function side(Side $side): SideRules
    {
        return $side === Side::Source ? $this->source : $this->target;
    }

    /** How the keys of a side are made alike, so that rows meet. */
    public function keyForm(Side $side, FormCombination $forms): KeyForm
    {
        return new KeyForm(
            array_map(fn(string $name): Reading => $this->side($side)->reading($name, Kind::Text), $this->keyNames($side)),
            array_map(static fn(KeyColumn $column): array => $column->forgives, $this->key),
            $forms,
        );
    }

    /** @return non-empty-list<string> */
    public function keyNames(Side $side): array
    {
        return array_map(static fn(KeyColumn $column): string => $side === Side::Source ? $column->source : $column->target, $this->key);
    }

    /** @return list<string> */
    public function pairedNames(Side $side): array
    {
        return array_map(static fn(ColumnPair $pair): string => $side === Side::Source ? $pair->source : $pair->target, $this->columnPairs);
    }

    /**
     * The columns of a side when its steps have run.
     *
     * @throws \NineTally\Core\Preparation\UnusableStep
     */
    public function preparedColumns(Side $side, Columns $delivered): Columns
    {
        return Columns::named($delivered->owner, $this->side($side)->preparation->columns($delivered->names, $side->value));
    }

    /** @throws UnusablePlan with every column that the plan names and a side has not, or has more than once */
    public function mustFit(Columns $source, Columns $target): void
    {
        $problems = [];
        foreach ([[Side::Source, $source], [Side::Target, $target]] as [$side, $columns]) {
            foreach ($this->namesByPlace($side) as $place => $name) {
                try {
                    $columns->positionOf($name);
                } catch (\NineTally\Core\NineTallyException $problem) {
                    $problems[] = new Problem($place, $problem->getMessage());
                }
            }
        }
        $problems = [...$problems, ...(new PlanProblems($this))->all()];
        if ($problems !== []) {
            throw UnusablePlan::because($problems);
        }
    }

    /** @return array<string, string> place in the plan => the column of that side that is named there */
    private function namesByPlace(Side $side): array
    {
        $names = [];
        foreach (['key' => $this->keyNames($side), 'columnPairs' => $this->pairedNames($side)] as $part => $ofPart) {
            foreach ($ofPart as $position => $name) {
                $names["/{$part}/{$position}/{$side->value}"] = $name;
            }
        }
        $rules = $this->side($side);
        // A column that a step speaks of may be gone, or have another name, when all steps have run; it is read by its declaration until
        // then.
        foreach (
            array_filter(
                array_map(strval(...), array_keys($rules->columns)),
                static fn(string $name): bool => ! $rules->preparation->mentions($name),
            )
            as $name
        ) {
            $names["/sides/{$side->value}/columns/".strtr($name, ['~' => '~0', '/' => '~1'])] = $name;
        }

        $names = [...$names, ...$this->columnRules->namesByPlace($side)];
        foreach ($rules->repeats->namedColumns() as $place => $name) {
            $names["/sides/{$side->value}/repeats{$place}"] = $name;
        }

        return $names;
    }
}
