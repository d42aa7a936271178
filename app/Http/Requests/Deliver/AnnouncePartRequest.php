<?php

declare(strict_types=1);

namespace App\Http\Requests\Deliver;

use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Row\Side;

final class AnnouncePartRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return [
            'side' => ['required', 'in:source,target'],
            'fileName' => ['required', 'string', 'max:255'],
            'bytes' => ['required', 'integer', 'min:0'],
        ];
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    /** The name alone: a path of somebody's machine is nobody's business here. */
    public function fileName(): string
    {
        return basename(str_replace('\\', '/', $this->string('fileName')->toString()));
    }

    public function bytes(): int
    {
        return $this->integer('bytes');
    }
}
