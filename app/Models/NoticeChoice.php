<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * How somebody wants to be told of something; who has said nothing is told in the application.
 *
 * @property int $user_id
 * @property NoticeKind $kind
 * @property bool $in_application
 * @property bool $by_mail
 */
final class NoticeChoice extends Model
{
    public $timestamps = false;

    public $incrementing = false;

    protected $guarded = [];

    protected $casts = ['kind' => NoticeKind::class, 'in_application' => 'boolean', 'by_mail' => 'boolean'];
}
