<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\PublishedFigure;
use Brick\Math\BigDecimal;
use Illuminate\Support\Collection;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Totals\ControlTotal;

/** What others published of a total, held against both sides: often somebody else's figure is wrong first. */
final readonly class PublishedFigures
{
    /** @param array<string, PublishedFigure> $figures by the labels of their group */
    private function __construct(private array $figures) {}

    public static function of(int $datasetId, ControlTotal $total): self
    {
        /** @var Collection<string, PublishedFigure> $standing the newest of each group */
        $standing = PublishedFigure::of($datasetId, $total)->with('user')->get()->unique(
            static fn(PublishedFigure $figure): string => CanonicalJson::of($figure->labels),
        )->keyBy(static fn(PublishedFigure $figure): string => CanonicalJson::of($figure->labels));

        return new self($standing->filter(static fn(PublishedFigure $figure): bool => $figure->figure !== null)->all());
    }

    /**
     * @param  list<string>  $labels  of the group; [] for all
     * @return array{figure: string, publisher: string, by: string, at: string, fromSource: string|null, toTarget: string|null}|null by how
     *     much the published figure is more than the source, and the target more than it
     */
    public function held(array $labels, ?string $source, ?string $target): ?array
    {
        $published = $this->figures[CanonicalJson::of($labels)] ?? null;
        if ($published === null) {
            return null;
        }
        $figure = BigDecimal::of((string) $published->figure);

        return [
            'figure' => (string) $figure,
            'publisher' => $published->publisher,
            'by' => $published->user->name,
            'at' => $published->created_at->toIso8601ZuluString(),
            'fromSource' => $source === null ? null : (string) $figure->minus($source),
            'toTarget' => $target === null ? null : (string) BigDecimal::of($target)->minus($figure),
        ];
    }
}
