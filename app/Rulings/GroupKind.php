<?php

declare(strict_types=1);

namespace App\Rulings;

use App\Models\RulingScope;
use NineTally\Core\Ruling\EffectiveRulingBlock;

/** The two kinds of groups of findings, and how each is kept: in a group a finding is known by its ordinal. */
enum GroupKind: string
{
    case Pattern = 'pattern';
    case RowClass = 'class';

    /** With what the names of its groups begin. */
    public function prefix(): string
    {
        return "{$this->value}:";
    }

    public function table(): string
    {
        return $this === self::Pattern ? 'cell_findings' : 'row_findings';
    }

    /** The column that tells the groups apart. */
    public function column(): string
    {
        return $this === self::Pattern ? 'pattern_number' : 'class';
    }

    /** The column that says which of its group a finding is, from 1. */
    public function ordinal(): string
    {
        return $this === self::Pattern ? 'pattern_ordinal' : 'class_ordinal';
    }

    /** What an act on one finding of such a group covers. */
    public function single(): RulingScope
    {
        return $this === self::Pattern ? RulingScope::Cell : RulingScope::Row;
    }

    /** @param string $table of findings, as the query names it */
    public function groupIn(string $table): string
    {
        return "'{$this->prefix()}' || {$table}.{$this->column()}";
    }

    public function blockIn(string $table): string
    {
        return "({$table}.{$this->ordinal()} - 1) / ".EffectiveRulingBlock::FINDINGS;
    }

    public function placeIn(string $table): string
    {
        return "(({$table}.{$this->ordinal()} - 1) % ".EffectiveRulingBlock::FINDINGS.')::int';
    }

    /** Joins a finding with the block of standings that it is in. */
    public function inBlock(string $table, string $standings): string
    {
        return "{$standings}.tally_id = {$table}.tally_id AND {$standings}.{$this->column()} = {$table}.{$this->column()} AND ".
            "{$standings}.block = {$this->blockIn($table)}";
    }

    /** The code of what was decided on a finding of that block. */
    public function decision(string $table, string $standings): string
    {
        return "get_byte({$standings}.decided, {$this->placeIn($table)})";
    }

    /** Which act stands for it; null where none does. */
    public function act(string $table, string $standings): string
    {
        return "{$standings}.acts[get_byte({$standings}.marks, {$this->placeIn($table)})]";
    }

    /** Joins a finding with its line of standing_findings. */
    public function isStanding(string $table, string $standing): string
    {
        return "{$standing}.tally_id = {$table}.tally_id AND {$standing}.{$this->column()} = {$table}.{$this->column()} AND ".
            "{$standing}.ordinal = {$table}.{$this->ordinal()}";
    }
}
