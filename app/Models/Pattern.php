<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Comparison\Worth;

/**
 * @property int $tally_id
 * @property int $number
 * @property int $pair_position
 * @property string $pair_id
 * @property string $source_column
 * @property string $target_column
 * @property CellClass $class
 * @property string $cause
 * @property array<string, string|int> $facts
 * @property int $cells
 * @property list<array{source: string, target: string}> $examples
 * @property WrittenWorth|null $worth of its cells, where they are numbers
 *
 * @phpstan-import-type WrittenWorth from Worth
 */
final class Pattern extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['class' => CellClass::class, 'facts' => 'array', 'examples' => 'array', 'worth' => 'array', 'cells' => 'integer'];
}
