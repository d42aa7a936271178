<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * One try to tell a program of a notice.
 *
 * @property int $webhook_id
 * @property int $notice_id
 * @property string $said what the program answered, or why it did not
 * @property bool $is_taken
 * @property \Illuminate\Support\Carbon $created_at
 */
final class WebhookAttempt extends Model
{
    public const UPDATED_AT = null;

    protected $guarded = [];

    protected $casts = ['is_taken' => 'boolean'];
}
