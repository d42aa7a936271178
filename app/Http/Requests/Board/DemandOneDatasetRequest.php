<?php

declare(strict_types=1);

namespace App\Http\Requests\Board;

use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;
use NineTally\Core\Row\Side;

/** Whether each row of files that several datasets use has to land in one of them alone. */
final class DemandOneDatasetRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'side' => ['required', Rule::enum(Side::class)],
            'files' => ['required', 'list', 'max:1000'],
            'files.*' => ['required', 'string', 'max:1000'],
            'isDemanded' => ['required', 'boolean'],
        ];
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    /** @return list<string> */
    public function files(): array
    {
        /** @var list<string> $files */
        $files = $this->validated('files');

        return $files;
    }
}
