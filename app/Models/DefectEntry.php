<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * Who mends a defect and until when. Entries are only added: the newest holds.
 *
 * @property int $id
 * @property int $ruling_id the act that ruled its findings a defect
 * @property string $mends
 * @property string|null $due a day
 * @property int $user_id
 */
final class DefectEntry extends Model
{
    use EntersTrail;

    public const UPDATED_AT = null;

    protected $guarded = [];
}
