<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/**
 * The worst value of a figure that is still acceptable.
 *
 * @phpstan-type LimitDocument array{figure: string, of?: string, worst: string|null}
 */
final readonly class Limit
{
    /**
     * @param  string|null  $of  to what the figure is narrowed, see {@see LimitScope}; null for all of it
     * @param  string|null  $worst  a decimal in the unit of the figure; null lifts a limit that would be inherited
     */
    private function __construct(public LimitFigure $figure, public ?string $of, public ?string $worst) {}

    /** @param LimitDocument $document */
    public static function fromArray(array $document): self
    {
        return new self(LimitFigure::from($document['figure']), $document['of'] ?? null, $document['worst']);
    }

    /** @return LimitDocument */
    public function toArray(): array
    {
        return [
            'figure' => $this->figure->value,
            ...$this->of === null ? [] : ['of' => $this->of],
            'worst' => $this->worst,
        ];
    }

    /** What it is a limit on: two of the same id contradict each other. */
    public function id(): string
    {
        return $this->figure->value.($this->of === null ? '' : " {$this->of}");
    }

    /** Such as "rows missing: at most 0"; what it is narrowed to is named by whoever knows the names. */
    public function sentence(string $scope = ''): string
    {
        return $this->name($scope).': '.$this->acceptable();
    }

    /** The worst value that is acceptable: "at most 0". */
    public function acceptable(): string
    {
        return $this->worst === null
            ? 'no limit here'
            : sprintf('at %s %s', $this->figure->isAtLeast() ? 'least' : 'most', $this->figure->unit()->written($this->worst));
    }

    /** The figure, without its worst value. */
    public function name(string $scope = ''): string
    {
        return $this->figure->words().($scope === '' ? '' : " ({$scope})");
    }

    /** What is wrong with it in itself; null where nothing is. */
    public function problem(): ?string
    {
        return match (true) {
            $this->of !== null && $this->figure->scope() === null
                => sprintf('"%s" is one figure, and cannot be narrowed to "%s".', $this->figure->value, $this->of),
            $this->of === null && $this->figure->needsScope()
                => sprintf('"%s" says nothing before it is said of which one.', $this->figure->value),
            $this->worst !== null && $this->figure->unit() === LimitUnit::Percent && (float) $this->worst > 100
                => sprintf('%s %% is more than all. Give a share between 0 and 100.', $this->worst),
            $this->worst !== null && $this->figure->unit() === LimitUnit::Count && str_contains($this->worst, '.')
                => sprintf('"%s" is counted, and %s is no whole number.', $this->figure->value, $this->worst),
            default => null,
        };
    }
}
