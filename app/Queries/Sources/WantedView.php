<?php

declare(strict_types=1);

namespace App\Queries\Sources;

use App\Adapters\Sources\Sources;
use App\Models\Dataset;
use App\Models\PlanDraft;
use App\Models\WantedSources;
use NineTally\Core\Records\RequiredRecord;
use NineTally\Core\Row\Side;

/**
 * What an imported plan asks for, a line each, and what of it this installation lacks: connections, with those that fit, references and
 * parameters.
 */
final readonly class WantedView
{
    public function __construct(private Sources $sources) {}

    /** @return array<string, mixed>|null null where nothing is wanted */
    public function of(Dataset $dataset): ?array
    {
        $wanted = WantedSources::query()->find($dataset->id);
        if ($wanted === null) {
            return null;
        }
        $known = $this->sources->names($dataset->migration);
        $connections = [];
        foreach ($wanted->drawn as $side => $parts) {
            foreach ($parts as $part) {
                $connections["{$side} {$part['connection']}"] ??= [
                    'side' => $side,
                    'name' => $part['connection'],
                    'isHere' => in_array($part['connection'], $known, true),
                    'fits' => array_values(
                        array_filter(
                            $known,
                            fn(string $name): bool => $part['kind'] === '' ||
                                $this->sources->kindOf($dataset->migration, $name)?->value === $part['kind'],
                        ),
                    ),
                    'queries' => [],
                ];
                $connections["{$side} {$part['connection']}"]['queries'][] = $part['query'];
            }
        }

        return [
            'connections' => array_values($connections),
            'references' => $this->references($dataset),
            'parameters' => $this->parameters($dataset),
        ];
    }

    /** @return list<array{name: string, isHere: bool, fits: list<string>}> datasets that are looked up, and whether they are here */
    private function references(Dataset $dataset): array
    {
        $draft = $dataset->draft()->first();
        $names = array_merge(...array_map(
            static fn(Side $side): array => $draft?->rules($side)->preparation->references() ?? [],
            Side::cases(),
        ));
        $records = $draft === null ? [] : PlanDraft::planOf($draft->document)->columnRules->records;
        $names = array_unique([...$names, ...array_map(static fn(RequiredRecord $rule): string => $rule->in, $records)]);
        $delivered = $dataset->migration
            ->datasets()
            ->whereHas('deliveries')
            ->orderBy('name')
            ->get()
            ->map(static fn(Dataset $other): string => $other->name)
            ->all();
        $here = array_map(static fn(string $name): string => mb_strtolower($name), $delivered);

        return array_values(array_map(static fn(string $name): array => [
            'name' => $name,
            'isHere' => in_array(mb_strtolower($name), $here, true),
            'fits' => array_values(array_diff($delivered, [$dataset->name])),
        ], $names));
    }

    /** @return list<array{name: string, isHere: bool}> values that conditions of its steps ask for */
    private function parameters(Dataset $dataset): array
    {
        $draft = $dataset->draft()->first();
        $names = array_unique(array_merge(...array_map(
            static fn(Side $side): array => $draft?->rules($side)->preparation->parameters() ?? [],
            Side::cases(),
        )));

        return array_values(array_map(
            static fn(string $name): array => ['name' => $name, 'isHere' => isset($dataset->parameters[$name])],
            $names,
        ));
    }
}
