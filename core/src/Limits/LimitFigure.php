<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/** What a limit can be set on. Ids stand in plans, packs and signed states, and never change their meaning. */
enum LimitFigure: string
{
    case ValuesRight = 'values-right';
    case ValuesLost = 'values-lost';
    case ValuesDiffering = 'values-differing';
    case ValuesAdded = 'values-added';
    case RowsArrived = 'rows-arrived';
    case RowsMissing = 'rows-missing';
    case RowsExtra = 'rows-extra';
    case RowsChanged = 'rows-changed';
    case RowsRepeated = 'rows-repeated';
    case RowsUnkeyed = 'rows-unkeyed';
    case RowsRefused = 'rows-refused';
    case RowsLeftOut = 'rows-left-out';
    case CellsOfPattern = 'cells-of-pattern';
    case CellsForgiven = 'cells-forgiven';
    case ToleranceCells = 'tolerance-cells';
    case ToleranceLargest = 'tolerance-largest';
    case ToleranceNet = 'tolerance-net';
    case TotalsApart = 'totals-apart';
    case TotalDifference = 'total-difference';
    case RecordsLost = 'records-lost';
    case RecordsLacking = 'records-lacking';
    case HandOverSlip = 'hand-over-slip';
    case DemandsUnmet = 'demands-unmet';
    case ExtractGap = 'extract-gap';
    case FindingsOpen = 'findings-open';
    case FindingsDefect = 'findings-defect';
    case FindingsAsked = 'findings-asked';
    case WrongByEye = 'wrong-by-eye';

    public function unit(): LimitUnit
    {
        return match ($this) {
            self::ValuesRight, self::ValuesLost, self::ValuesDiffering, self::ValuesAdded, self::RowsArrived, self::WrongByEye
                => LimitUnit::Percent,
            self::ToleranceLargest, self::ToleranceNet, self::TotalDifference => LimitUnit::Amount,
            self::ExtractGap => LimitUnit::Hours,
            default => LimitUnit::Count,
        };
    }

    /** Whether more is better, so that the worst value is the least one. */
    public function isAtLeast(): bool
    {
        return $this === self::ValuesRight || $this === self::RowsArrived;
    }

    /** What the figure can be narrowed to; null where there is one of it alone. */
    public function scope(): ?LimitScope
    {
        return match ($this) {
            self::ValuesRight, self::ValuesLost, self::ValuesDiffering, self::ValuesAdded, self::ToleranceCells, self::ToleranceLargest,
            self::ToleranceNet => LimitScope::Pair,
            self::RowsMissing, self::RowsExtra => LimitScope::Part,
            self::RowsRepeated, self::RowsUnkeyed, self::RowsRefused => LimitScope::SidePart,
            self::RowsLeftOut => LimitScope::Step,
            self::CellsOfPattern => LimitScope::Pattern,
            self::CellsForgiven => LimitScope::Cause,
            self::TotalDifference => LimitScope::Total,
            self::RecordsLost, self::RecordsLacking => LimitScope::Record,
            default => null,
        };
    }

    /** Whether it says nothing before it is narrowed: of which pattern, of which total. */
    public function needsScope(): bool
    {
        return $this === self::CellsOfPattern || $this === self::TotalDifference;
    }

    public function words(): string
    {
        return match ($this) {
            self::ValuesRight => 'values right',
            self::ValuesLost => 'values lost',
            self::ValuesDiffering => 'values that differ',
            self::ValuesAdded => 'values added',
            self::RowsArrived => 'source rows that met their counterpart',
            self::RowsMissing => 'rows missing',
            self::RowsExtra => 'rows extra',
            self::RowsChanged => 'rows changed',
            self::RowsRepeated => 'rows repeated, on both sides',
            self::RowsUnkeyed => 'rows without a key, on both sides',
            self::RowsRefused => 'records refused, on both sides',
            self::RowsLeftOut => 'rows left out by steps, on both sides',
            self::CellsOfPattern => 'cells that differ in one way',
            self::CellsForgiven => 'cells that rules let pass',
            self::ToleranceCells => 'cells within a tolerance',
            self::ToleranceLargest => 'largest difference that a tolerance let pass',
            self::ToleranceNet => 'net of all differences that a tolerance let pass',
            self::TotalsApart => 'control totals that differ',
            self::TotalDifference => 'difference of a control total',
            self::RecordsLost => 'values whose record the move lost',
            self::RecordsLacking => 'values of the target without a record',
            self::HandOverSlip => 'figures of the deliverers that do not hold',
            self::DemandsUnmet => 'values of the target that break what it demands',
            self::ExtractGap => 'hours between the two extracts',
            self::FindingsOpen => 'findings without a ruling',
            self::FindingsDefect => 'findings ruled defect',
            self::FindingsAsked => 'findings that wait for an answer',
            self::WrongByEye => 'rows that may be wrong, by the eye check',
        };
    }
}
