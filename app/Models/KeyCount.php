<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Plan\SideRules;

/**
 * How well some columns tell the rows of a delivery apart, counted on the whole delivery.
 *
 * @property int $id
 * @property string $columns_digest
 * @property int $delivery_id
 * @property list<string> $columns
 * @property string $state queued, counted or failed
 * @property int|null $rows
 * @property int|null $unique_rows
 * @property int|null $repeated_rows
 * @property int|null $unkeyed_rows
 */
final class KeyCount extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['columns' => 'array'];

    /**
     * What is counted: the columns, after the steps of the side.
     *
     * @param  list<string>  $columns
     */
    public static function digestOf(array $columns, SideRules $rules): string
    {
        return hash(
            'sha256',
            json_encode([$columns, ...$rules->preparation->isEmpty() ? [] : [$rules->preparation->digest()]], JSON_THROW_ON_ERROR),
        );
    }
}
