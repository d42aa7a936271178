<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use NineTally\Core\Profile\ValueDistribution;

/**
 * What the columns of a delivery hold.
 *
 * @phpstan-import-type Column from ValueDistribution
 *
 * @property int $delivery_id
 * @property list<Column>|null $columns in the order of the delivery; null while it is being read
 * @property string|null $problem
 */
final class DeliveryProfile extends Model
{
    public const UPDATED_AT = null;

    public $incrementing = false;

    protected $primaryKey = 'delivery_id';

    protected $guarded = [];

    protected $casts = ['columns' => 'array'];
}
