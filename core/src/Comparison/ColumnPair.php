<?php

declare(strict_types=1);

namespace NineTally\Core\Comparison;

use NineTally\Core\Value\DeclaredRounding;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Tolerance;

/** A source column and the target column it must equal, with its kind and what may differ. */
final readonly class ColumnPair
{
    /** The cause of form that a new pair of a kind forgives; it is written in the plan and can be taken out. */
    private const FORGIVEN_BY_KIND = [
        'text' => [],
        'number' => ['number-form'],
        'date' => ['date-form'],
        'date-time' => ['date-form'],
        'yes-no' => ['yes-no-form'],
    ];

    /**
     * @param  list<string>  $forgives  ids of causes of form, in the order of the catalogue
     * @param  array<string, string>  $crosswalk  source value => target value
     */
    public function __construct(
        public string $id,
        public string $source,
        public string $target,
        public Kind $kind = Kind::Text,
        public array $forgives = [],
        public ?Tolerance $tolerance = null,
        public ?DeclaredRounding $rounding = null,
        public array $crosswalk = [],
    ) {}

    /** The id follows from the two names, so a pair that is undone and made again keeps its findings' identities and rulings. */
    public static function between(string $source, string $target, Kind $kind = Kind::Text): self
    {
        return new self(
            'pair-'.substr(hash('sha256', $source."\0".$target), 0, 12),
            $source,
            $target,
            $kind,
            self::FORGIVEN_BY_KIND[$kind->value],
        );
    }

    /** @return array<string, mixed> as the plan writes it: what is as it would be by itself is left out */
    public function toArray(): array
    {
        return [
            'id' => $this->id,
            'source' => $this->source,
            'target' => $this->target,
            'kind' => $this->kind->value,
            ...array_filter([
                'forgives' => $this->forgives,
                'tolerance' => $this->tolerance === null ? null : ['by' => $this->tolerance->by, 'most' => (string) $this->tolerance->most],
                'rounding' => $this->rounding === null ? null : ['places' => $this->rounding->places, 'mode' => $this->rounding->mode],
                'crosswalk' => array_map(
                    static fn(int|string $source, string $target): array => ['source' => (string) $source, 'target' => $target],
                    array_keys($this->crosswalk),
                    $this->crosswalk,
                ),
            ]),
        ];
    }
}
