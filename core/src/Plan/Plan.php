<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

use NineTally\Core\Comparison\ColumnPair;
use NineTally\Core\Row\Columns;
use NineTally\Core\Row\Side;
use NineTally\Core\Value\Kind;
use Opis\JsonSchema\Errors\ErrorFormatter;
use Opis\JsonSchema\Validator;

/** Which row is which, and what must be equal. Rows that share a key are set aside. */
final readonly class Plan
{
    public const FORMAT_VERSION = 1;

    /**
     * @param  non-empty-list<KeyColumn>  $key
     * @param  list<ColumnPair>  $columnPairs
     * @param  array{source: list<string>, target: list<string>}  $leftOut
     */
    public function __construct(public array $key, public array $columnPairs, public array $leftOut = ['source' => [], 'target' => []]) {}

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
            throw UnusablePlan::because([new Problem('/key', sprintf('No key was given. Name the columns that tell one row from another, such as --key=%s.', $source->names[0] ?? 'number'))]);
        }
        foreach ($map as $sourceName => $targetName) {
            $source->positionOf($sourceName);
            $target->positionOf($targetName);
        }
        foreach ($leaveOut as $name) {
            if (! $source->has($name) && ! $target->has($name)) {
                $source->positionOf($name);
            }
        }
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
        try {
            $document = json_decode($json, false, 64, JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw UnusablePlan::because([new Problem('', sprintf('The plan is not JSON: %s.', $broken->getMessage()))]);
        }
        self::mustFollowSchema($document);
        /** @var array{key: non-empty-list<array{source: string, target: string}>, columnPairs: list<array{id: string, source: string, target: string, kind: string}>, leftOut: array{source: list<string>, target: list<string>}} $checked */
        $checked = json_decode($json, true, 64, JSON_THROW_ON_ERROR);

        return new self(
            array_map(static fn(array $column): KeyColumn => new KeyColumn($column['source'], $column['target']), $checked['key']),
            array_map(static fn(array $pair): ColumnPair => new ColumnPair($pair['id'], $pair['source'], $pair['target'], Kind::from($pair['kind'])), $checked['columnPairs']),
            $checked['leftOut'],
        );
    }

    private static function mustFollowSchema(mixed $document): void
    {
        $validator = new Validator;
        $validator->setMaxErrors(20);
        $result = $validator->validate($document, (string) file_get_contents(__DIR__.'/plan.schema.json'));
        if (! $result->isValid() && ($error = $result->error()) !== null) {
            $problems = [];
            /** @var array<string, list<string>> $byPointer */
            $byPointer = (new ErrorFormatter)->format($error);
            foreach ($byPointer as $pointer => $messages) {
                $problems[] = new Problem($pointer === '/' ? '' : $pointer, sprintf('Plan, at "%s": %s.', $pointer, implode('; ', $messages)));
            }
            throw UnusablePlan::because($problems !== [] ? $problems : [new Problem('', 'The plan does not follow its schema.')]);
        }
    }

    /** @return array<string, mixed> */
    public function toArray(): array
    {
        return [
            'formatVersion' => self::FORMAT_VERSION,
            'key' => array_map(static fn(KeyColumn $column): array => ['source' => $column->source, 'target' => $column->target], $this->key),
            'columnPairs' => array_map(static fn(ColumnPair $pair): array => $pair->toArray(), $this->columnPairs),
            'leftOut' => $this->leftOut,
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
        return CanonicalJson::of(array_map(static fn(KeyColumn $column): array => [$column->source, $column->target], $this->key));
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

    /** @throws UnusablePlan with every column that the plan names and a side has not, or has more than once */
    public function mustFit(Columns $source, Columns $target): void
    {
        $problems = [];
        foreach ([[Side::Source, $source], [Side::Target, $target]] as [$side, $columns]) {
            foreach (['key' => $this->keyNames($side), 'columnPairs' => $this->pairedNames($side)] as $part => $names) {
                foreach ($names as $position => $name) {
                    try {
                        $columns->positionOf($name);
                    } catch (\NineTally\Core\NineTallyException $problem) {
                        $problems[] = new Problem("/{$part}/{$position}/{$side->value}", $problem->getMessage());
                    }
                }
            }
        }
        $problems = [...$problems, ...$this->contradictions()];
        if ($problems !== []) {
            throw UnusablePlan::because($problems);
        }
    }

    /** @return list<Problem> */
    private function contradictions(): array
    {
        $problems = [];
        foreach (Side::cases() as $side) {
            $seen = [];
            foreach (['key' => $this->keyNames($side), 'columnPairs' => $this->pairedNames($side)] as $part => $names) {
                foreach ($names as $position => $name) {
                    // A key column may also be compared with another column; within one part a column stands once.
                    if (isset($seen[$part][$name])) {
                        $problems[] = new Problem("/{$part}/{$position}/{$side->value}", sprintf('The %s column "%s" stands twice in the %s. Remove one of them.', $side->value, $name, $part === 'key' ? 'key' : 'column pairs'));
                    }
                    $seen[$part][$name] = true;
                }
            }
        }

        return $problems;
    }
}
