<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\PublishedFigure;
use Brick\Math\BigDecimal;
use Illuminate\Support\Collection;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Totals\Share;
use NineTally\Core\Totals\WayThroughShares;

/**
 * What others published of a total, held against both sides: often somebody else's figure is wrong first.
 *
 * @phpstan-import-type ShareFigures from Share
 */
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
     * @param  list<ShareFigures>  $shares  of the difference
     * @return array{figure: string, publisher: string, by: string, at: string, fromSource: string|null, toTarget: string|null,
     *     through: list<string>|null}|null by how much the published figure is more than the source, and the target more than it; and the
     *     names of the shares that lie between the source and it, where some do exactly
     */
    public function held(array $labels, ?string $source, ?string $target, array $shares = []): ?array
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
            'through' => $source === null ? null : self::through($figure->minus($source), $shares),
            'toTarget' => $target === null ? null : (string) BigDecimal::of($target)->minus($figure),
        ];
    }

    /**
     * @param  list<ShareFigures>  $shares
     * @return list<string>|null
     */
    private static function through(BigDecimal $apart, array $shares): ?array
    {
        $nets = array_map(static fn(array $share): BigDecimal => BigDecimal::of(is_numeric($share['net']) ? $share['net'] : '0'), $shares);
        $places = $apart->isZero() ? null : WayThroughShares::of($apart, $nets);

        return $places === null ? null : array_map(static fn(int $place): string => $shares[$place]['name'], $places);
    }
}
