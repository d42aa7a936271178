<?php

declare(strict_types=1);

namespace App\Queries\Prove;

use App\Models\Delivery;
use App\Models\Tally;
use Brick\Math\BigDecimal;
use NineTally\Core\Row\Side;
use NineTally\Core\Totals\Basis;
use NineTally\Core\Totals\ControlTotal;
use NineTally\Core\Totals\Measure;

/**
 * What the deliverers themselves say that a total comes to, beside what the rows of their delivery come to.
 *
 * @phpstan-import-type Claim from Delivery
 */
final readonly class DeclaredTotals
{
    /**
     * @param  array<string, string|null>  $sides  side => what the total comes to there
     * @return list<array{side: string, from: string, figure: string, apart: string|null}> apart: by how much the total of the side is more
     *     than the figure; null where the figure is of some parts alone, or no number
     */
    public static function of(Tally $tally, ControlTotal $total, array $sides): array
    {
        if ($total->over === Basis::Matched) {
            return [];
        }
        $said = [];
        foreach (Side::cases() as $side) {
            $delivery = $side === Side::Source ? $tally->sourceDelivery : $tally->targetDelivery;
            foreach (self::figures($delivery, $total, $side) as $figure) {
                $said[] = ['side' => $side->value, ...self::held($figure, $sides[$side->value] ?? null)];
            }
        }

        return $said;
    }

    /** @return list<array{from: string, figure: BigDecimal|string, isOfAll: bool}> of last records together, where every part has one */
    private static function figures(Delivery $delivery, ControlTotal $total, Side $side): array
    {
        [$figures, $ofParts] = [[], []];
        foreach ($delivery->claims as $claim) {
            if (! self::isOf($claim, $total, $side)) {
                continue;
            }
            $isOfAll = $claim['from'] === Delivery::BY_HAND || $delivery->parts->count() === 1;
            $said = [
                'from' => $claim['from'],
                'figure' => Delivery::figureOf($claim['claimed']) ?? $claim['claimed'],
                'isOfAll' => $isOfAll,
            ];
            $isOfAll ? ($figures[] = $said) : ($ofParts[] = $said);
        }
        $numbers = array_filter(
            array_column($ofParts, 'figure'),
            static fn(BigDecimal|string $figure): bool => $figure instanceof BigDecimal,
        );

        return $numbers !== [] && count($numbers) === $delivery->parts->count()
            ? [...$figures, ['from' => 'the last records of its parts', 'figure' => BigDecimal::sum(...$numbers), 'isOfAll' => true]]
            : [...$figures, ...$ofParts];
    }

    /** @param Claim $claim */
    private static function isOf(array $claim, ControlTotal $total, Side $side): bool
    {
        return match ($total->measure) {
            Measure::Rows => $claim['about'] === 'rows',
            Measure::Sum => $claim['about'] === 'sum' && $claim['column'] === $total->column($side),
            default => false,
        };
    }

    /**
     * @param  array{from: string, figure: BigDecimal|string, isOfAll: bool}  $said
     * @return array{from: string, figure: string, apart: string|null}
     */
    private static function held(array $said, ?string $total): array
    {
        ['from' => $from, 'figure' => $figure, 'isOfAll' => $isOfAll] = $said;
        $canBeHeld = $isOfAll && $total !== null && $figure instanceof BigDecimal;

        return [
            'from' => $from,
            'figure' => (string) $figure,
            'apart' => $canBeHeld ? (string) BigDecimal::of($total)->minus($figure) : null,
        ];
    }
}
